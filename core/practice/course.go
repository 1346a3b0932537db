package practice

import (
	_ "embed"
	"slices"
	"sync"

	"go.yaml.in/yaml/v3"
)

// Lesson is one of the course: a page to read, a drill and a case.
type Lesson struct {
	Code    string   `yaml:"code"`
	Station string   `yaml:"station"`
	Title   string   `yaml:"title"`
	Says    []string `yaml:"says"`
	Caution string   `yaml:"caution"`
	Drill   string   `yaml:"drill"` // of a drill or of an instrument
	Kind    string   `yaml:"kind"`  // of the case
}

//go:embed course.yaml
var courseText []byte

// course is read once; a test reads it whole.
var course = sync.OnceValue(func() (out []Lesson) {
	if err := yaml.Unmarshal(courseText, &out); err != nil {
		panic(err) // it ships with the program
	}
	return out
})

// Course are the lessons, in the order of the stations.
func Course() []Lesson { return course() }

// LessonByCode finds one, with its number from 1.
func LessonByCode(code string) (l Lesson, number int, known bool) {
	at := slices.IndexFunc(course(), func(l Lesson) bool { return l.Code == code })
	if at < 0 {
		return l, 0, false
	}
	return course()[at], at + 1, true
}

// Of is what a lesson has to try: the name of its drill or instrument, and which of both it is.
func (l Lesson) Of() (name string, instrument bool) {
	if k, known := KindByCode(l.Drill); known {
		return k.Name, true
	}
	d, _ := DrillByCode(l.Drill)
	return d.Name, false
}
