package site

import (
	"net/http"
	"time"

	"corvek/internal/people"

	"github.com/labstack/echo/v5"
)

// Route is one entry of the table that routing and the authorization test share.
type Route struct {
	Method, Path string
	Role         string // the least role; "" is open to everybody
	Handle       echo.HandlerFunc

	upload   bool          // a file is sent
	patience time.Duration // of an answer, 0 for the usual
}

// Upload is the route where a file is sent.
func (r Route) Upload() Route {
	r.upload = true
	return r.Slow()
}

// Slow is the route where something large is made or read.
func (r Route) Slow() Route {
	r.patience = paperTime
	return r
}

// Live is the route of an answer that goes on.
func (r Route) Live() Route {
	r.patience = liveTime
	return r
}

// The least roles that a route asks for.
const (
	Open = ""
	View = people.RoleViewer
	Work = people.RoleTechnician
	Lead = people.RoleLead
)

// Get is the route of a page or of something else that is looked at.
func Get(path, role string, handle echo.HandlerFunc) Route {
	return Route{Method: http.MethodGet, Path: path, Role: role, Handle: handle}
}

// Post is the route of an act.
func Post(path, role string, handle echo.HandlerFunc) Route {
	return Route{Method: http.MethodPost, Path: path, Role: role, Handle: handle}
}
