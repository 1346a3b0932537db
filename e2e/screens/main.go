// Command screens takes the pictures of docs/screenshots from a running demo:
//
//	go run ./e2e/screens -base http://127.0.0.1:8093 -out docs/screenshots
//
// With arguments it takes only those: name=path, name@800x1280=path, name!dark=path.
package main

import (
	"flag"
	"fmt"
	"log"
	"os"
	"path/filepath"
	"strings"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/proto"
)

// views are the pictures kept in docs/screenshots.
var views = []string{
	"board=/jobs", "receive=/jobs/T-0417/receive", "strip=/jobs/T-0417/strip",
	"measure=/jobs/T-0417/measure?part=rear_plate&feature=side_clearance",
	"explain=/jobs/T-0417/explain", "decide=/jobs/T-0417/decide?part=rear_plate", "kit=/jobs/T-0409/kit",
	"build=/jobs/T-0417/build?at=cover_bolts",
	"prove=/jobs/T-0388/prove", "handover=/jobs/T-0388/handover", "report@900x1280=/jobs/T-0388/report",
	"toolbox=/toolbox/shims?measured_clearance=9+thou&lower=3+thou&upper=7+thou&fitted=0.10+mm,0.05+mm" +
		"&available=0.02+mm+x4",
	"measure-tablet@800x1280=/jobs/T-0417/measure?part=rear_plate&feature=side_clearance",
	"practice!dark=/practice/reading/bore_gauge?seed=4&inch=",
	"sheet=/library/sheets/3",
	"family=/library/cam_piston_pump",
	"plan=/plan",
	"stock=/stock?item=1", "figures=/figures?measure=hours&by=family&key=external_gear_pump",
}

func main() {
	base := flag.String("base", "http://127.0.0.1:8093", "address of the demo")
	out := flag.String("out", "docs/screenshots", "folder for the pictures")
	who := flag.String("as", "odd", "sign-in")
	flag.Parse()
	if flag.NArg() > 0 {
		views = flag.Args()
	}
	l := launcher.New().Bin(chromium()).NoSandbox(os.Geteuid() == 0).Set("disable-background-networking").
		Set("no-first-run")
	browser := rod.New().ControlURL(l.MustLaunch()).MustConnect()
	defer browser.MustClose()
	page := browser.MustPage(*base + "/sign-in")
	signedIn := page.MustWaitNavigation()
	page.MustElement(`form input[name=sign_in][value="` + *who + `"]`).MustParent().MustElement("button").MustClick()
	signedIn()
	for _, v := range views {
		spec, path, _ := strings.Cut(v, "=")
		name, theme, _ := strings.Cut(spec, "!")
		name, size, _ := strings.Cut(name, "@")
		width, height := 1280, 800
		if size != "" {
			if _, err := fmt.Sscanf(size, "%dx%d", &width, &height); err != nil {
				log.Fatal(err)
			}
		}
		page.MustSetViewport(width, height, 1, false)
		if theme == "" {
			theme = "light"
		}
		page.MustSetCookies(&proto.NetworkCookieParam{Name: "corvek_theme", Value: theme, URL: *base})
		page.MustNavigate(*base + path).MustWaitLoad()
		page.MustWaitIdle()
		page.MustScreenshot(filepath.Join(*out, name+".png"))
		fmt.Println(name)
	}
}

func chromium() string {
	for _, p := range []string{"/usr/bin/chromium-headless-shell", "/usr/bin/chromium", "/usr/bin/chromium-browser",
		"/usr/bin/google-chrome"} {
		if _, err := os.Stat(p); err == nil {
			return p
		}
	}
	return ""
}
