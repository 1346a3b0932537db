package draw

import "math"

// CylinderSection is a cut cylinder with the areas oil works on and the forces
// that come of it. Lengths in m; a rod of 0 is a plain ram without one. The
// words are written beside what they belong to.
type CylinderSection struct {
	Bore, Rod, Stroke                 float64
	BoreWord, RodWord, StrokeWord     string
	CapArea, AnnulusArea, CapPressure string
	BackPressure                      string
	Push, Pull                        string
	Blocked                           string // pressure in the rod end when it cannot flow out
}

// SVG draws the section, 560 wide and 232 high, bore and rod in true proportion.
func (c CylinderSection) SVG() string {
	if c.Bore <= 0 {
		return ""
	}
	const mid, tall, left = 118.0, 116.0, 74.0
	s := newSheet("plot", 560, 232, "section of the cylinder: push "+c.Push+", pull "+c.Pull)
	scale := tall / c.Bore
	long := 300.0
	if c.Stroke > 0 {
		long = math.Min(330, math.Max(200, c.Stroke*scale+60))
	}
	top, base := mid-tall/2, mid+tall/2
	wall := 11.0
	right := left + long
	rod := c.Rod * scale
	at := left + long*.46 // the piston's left face
	thick := math.Min(46, math.Max(26, tall*.3))
	// Oil on both sides.
	s.rect("oil-a", left, top, at-left, tall)
	if c.Rod > 0 {
		s.rect("oil-b", at+thick, top, right-at-thick, (tall-rod)/2)
		s.rect("oil-b", at+thick, mid+rod/2, right-at-thick, (tall-rod)/2)
	}
	// Tube and ends.
	s.rect("h", left-16, top-wall, long+32, wall)
	s.rect("h", left-16, base, long+32, wall)
	s.rect("h", left-16, top, 16, tall)
	if c.Rod > 0 {
		s.rect("h", right, top, 16, (tall-rod)/2)
		s.rect("h", right, mid+rod/2, 16, (tall-rod)/2)
		s.rect("rub", right+4, mid-rod/2-5, 8, 5)
		s.rect("rub", right+4, mid+rod/2, 8, 5)
	} else {
		s.rect("h", right, top, 16, tall)
	}
	// Ports.
	for _, x := range []float64{left + 18, right - 18} {
		s.rect("k", x-7, top-wall-7, 14, 7)
		s.path("thin", "M%v %v v%v M%v %v v%v", x-4, top-wall, wall, x+4, top-wall, wall)
	}
	// Piston with its two seals, rod.
	s.rect("o", at, top+1, thick, tall-2)
	for _, x := range []float64{at + thick*.24, at + thick*.6} {
		s.rect("rub", x, top+1, 6, 7)
		s.rect("rub", x, base-8, 6, 7)
	}
	if c.Rod > 0 {
		s.rect("o", at+thick, mid-rod/2, 540-at-thick, rod)
		s.path("cl", "M%v %v H%v", left-34, mid, 552.0)
	} else {
		s.path("cl", "M%v %v H%v", left-34, mid, right+30)
	}
	// Forces inside the chambers.
	s.arrow("fo push", left+10, at-3, mid, 15)
	s.text("fo-t", (left+at)/2-4, mid+6, "middle", c.Push)
	if c.Rod > 0 {
		s.text("ar-t", right-2, mid-rod/2-7, "end", c.AnnulusArea)
		if room := (tall - rod) / 2; room > 30 {
			s.text("ar-q", right-2, mid+rod/2+16, "end", c.BackPressure)
		}
		if rod > 34 {
			s.arrow("fo pull", 546, at+thick+26, mid, math.Min(13, rod*.3))
			s.text("fo-t", (at+thick+26+546)/2+4, mid+5, "middle", c.Pull)
		} else {
			s.arrow("fo pull", 546, right+26, mid+rod/2+22, 11)
			s.text("fo-p", 546, mid+rod/2+54, "end", "pull "+c.Pull)
		}
	}
	s.text("ar-t", left+6, top+19, "start", c.CapArea)
	s.text("ar-q", left+6, base-8, "start", c.CapPressure)
	s.height(left-22, top, base, "")
	s.text("dm-t", left-28, mid-6, "end", c.BoreWord)
	if c.Rod > 0 {
		s.height(552, mid-rod/2, mid+rod/2, "")
		s.text("dm-t", 556, mid-rod/2-9, "end", c.RodWord)
	}
	if c.StrokeWord != "" {
		s.width(left, right-thick, base+wall+24, "stroke "+c.StrokeWord)
	}
	if c.Blocked != "" {
		s.text("st-t stop", 556, 16, "end", "rod end shut: "+c.Blocked)
	}
	return s.svg()
}

// IntensifierSection is a large drive piston pushing a small plunger.
type IntensifierSection struct {
	Drive, Plunger                                              float64 // diameters, m
	DriveWord, PlungerWord, DrivePressure, Output, Force, Ratio string
}

// SVG draws the section, 560 wide and 232 high.
func (c IntensifierSection) SVG() string {
	if c.Drive <= 0 || c.Plunger <= 0 {
		return ""
	}
	const mid, left, at, right = 118.0, 70.0, 190.0, 300.0
	tall := 150.0
	small := math.Max(8, tall*math.Min(1, c.Plunger/c.Drive))
	if c.Plunger > c.Drive {
		tall = math.Max(20, 150*c.Drive/c.Plunger)
		small = 150
	}
	top, base := mid-tall/2, mid+tall/2
	s := newSheet("plot", 560, 232, "section of the intensifier: ratio "+c.Ratio+", output "+c.Output)
	s.rect("oil-a", left, top, at-left, tall)
	s.rect("h", left-12, top-10, right-left+24, 10)
	s.rect("h", left-12, base, right-left+24, 10)
	s.rect("h", left-12, top, 12, tall)
	if tall > small {
		s.rect("h", right, top, 12, (tall-small)/2)
		s.rect("h", right, mid+small/2, 12, (tall-small)/2)
	}
	s.rect("h", right+12, mid-small/2-14, 170, 14)
	s.rect("h", right+12, mid+small/2, 170, 14)
	s.rect("oil-b", right+90, mid-small/2, 92, small)
	s.rect("h", right+182, mid-small/2-14, 12, small/2+8)
	s.rect("h", right+182, mid+6, 12, small/2+8)
	s.rect("o", at, top+1, 26, tall-2)
	s.rect("rub", at+6, top+1, 6, 7)
	s.rect("rub", at+6, base-8, 6, 7)
	s.rect("o", at+26, mid-small/2+1, right+90-at-26, small-2)
	s.path("cl", "M%v %v H540", left-30, mid)
	s.arrow("fo push", left+10, at-3, mid, 15)
	s.text("fo-t", (left+at)/2-4, mid+6, "middle", c.Force)
	s.arrow("fo push", right+196, 548, mid, 7)
	s.text("ar-q", left+6, base-8, "start", c.DrivePressure)
	s.height(left-18, top, base, "")
	s.text("dm-t", left-24, mid-6, "end", c.DriveWord)
	s.text("dm-t", right+50, mid+small/2+34, "middle", c.PlungerWord)
	s.text("ar-n", 548, mid-small/2-30, "end", c.Output)
	s.text("ar-t", 548, mid+small/2+52, "end", "ratio "+c.Ratio)
	return s.svg()
}
