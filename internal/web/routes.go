package web

import (
	"corvek/internal/job"

	"github.com/labstack/echo/v5"
)

// route is one entry of the table that routing and the authorization test share.
type route struct {
	method, path string
	role         string // the least role; "" is open to everybody
	handle       echo.HandlerFunc
}

const apiCalcPath = "/api/v1/calc/:name"

func (s *Server) routes() []route {
	const open, view, work, lead = "", job.RoleViewer, job.RoleTechnician, job.RoleLead
	return []route{
		{"GET", "/healthz", open, s.health},
		{"GET", "/sign-in", open, s.signInPage},
		{"POST", "/sign-in", open, s.signIn},
		{"POST", "/sign-out", view, s.signOut},
		{"GET", "/first", open, s.firstPage},
		{"POST", "/first", open, s.begin},
		{"GET", "/change", view, s.changePage},
		{"POST", "/change", view, s.changePerson},
		{"POST", "/confirm", view, s.confirm},
		{"GET", "/me", view, s.mePage},
		{"POST", "/me/password", view, s.ownPassword},
		{"POST", "/me/quick", view, s.signed(s.ownQuick)},
		{"GET", "/shop", lead, s.shop},
		{"POST", "/shop/name", lead, s.signed(s.nameShop)},
		{"POST", "/shop/people", lead, s.signed(s.addPerson)},
		{"GET", "/shop/store", lead, s.storePage},
		{"POST", "/shop/store/copy", lead, s.copyNow},
		{"GET", "/shop/people/:id", lead, s.personPage},
		{"POST", "/shop/people/:id", lead, s.signed(s.onPerson("who", s.changeOfPerson))},
		{"POST", "/shop/people/:id/password", lead, s.signed(s.onPerson("password", s.passwordOfPerson))},
		{"POST", "/shop/people/:id/quick", lead, s.signed(s.onPerson("quick", s.setQuick))},
		{"POST", "/shop/people/:id/lock", lead, s.signed(s.onPerson("who", s.lockPerson))},
		{"GET", "/", view, s.home},
		{"GET", "/jobs", view, s.board},
		{"GET", "/customers", work, s.customers},
		{"GET", "/jobs/new", work, s.newJobPage},
		{"POST", "/jobs", work, s.createJob},
		{"POST", "/import", lead, s.importJob},
		{"GET", "/jobs/:tag", view, s.openJob},
		{"GET", "/jobs/:tag/record", view, s.record},
		{"GET", "/jobs/:tag/report", view, s.report},
		{"GET", "/jobs/:tag/dispute", view, s.dispute},
		{"GET", "/jobs/:tag/report.pdf", view, s.reportPDF},
		{"GET", "/jobs/:tag/start-up-card", view, s.card},
		{"GET", "/jobs/:tag/quote", view, s.quote},
		{"GET", "/jobs/:tag/parts-list", view, s.partsList},
		{"GET", "/jobs/:tag/parts-list.csv", view, s.partsListCSV},
		{"GET", "/jobs/:tag/export", view, s.export},
		{"GET", "/jobs/:tag/line.svg", view, s.lineSVG},
		{"GET", "/jobs/:tag/line", view, s.lineLarge},
		{"GET", "/jobs/:tag/:station", view, s.station},
		{"POST", "/jobs/:tag/set", work, s.set},
		{"POST", "/jobs/:tag/receive/unit", work, s.addUnit},
		{"POST", "/jobs/:tag/receive/account", work, s.addAccount},
		{"GET", "/jobs/:tag/tag", view, s.tote},
		{"POST", "/jobs/:tag/receive/join", work, s.join},
		{"POST", "/jobs/:tag/strip/part", work, s.addPart},
		{"POST", "/jobs/:tag/strip/move", work, s.movePart},
		{"POST", "/jobs/:tag/strip/assembly", work, s.changeAssembly},
		{"POST", "/jobs/:tag/strip/variant", work, s.keepVariant},
		{"POST", "/jobs/:tag/prove/hold", work, s.startHold},
		{"POST", "/jobs/:tag/strip/count", work, s.recount},
		{"POST", "/jobs/:tag/strip/rest", work, s.takeOffRest},
		{"POST", "/jobs/:tag/strip/loose", work, s.addLoose},
		{"POST", "/jobs/:tag/explain/cause", work, s.addCause},
		{"POST", "/jobs/:tag/explain/cause/remove", work, s.removeCause},
		{"POST", "/jobs/:tag/decide/offered", work, s.giveOffer},
		{"POST", "/jobs/:tag/decide/answer", work, s.signed(s.takeAnswer)},
		{"POST", "/jobs/:tag/kit/piece", work, s.addPiece},
		{"POST", "/jobs/:tag/kit/list", work, s.addPieces},
		{"POST", "/jobs/:tag/kit/join", work, s.joinPiece},
		{"POST", "/jobs/:tag/prove/attempt", work, s.nextAttempt},
		{"POST", "/jobs/:tag/prove/stand", work, s.takeFromStand},
		{"POST", "/jobs/:tag/prove/close", work, s.closeAttempt},
		{"POST", "/jobs/:tag/prove/round", work, s.openRound},
		{"POST", "/jobs/:tag/caution", work, s.acknowledge},
		{"POST", "/jobs/:tag/pass", lead, s.signed(s.passStop)},
		{"POST", "/jobs/:tag/hand-over", work, s.signed(s.handOver)},
		{"POST", "/jobs/:tag/reopen", lead, s.signed(s.reopen)},
		{"POST", "/jobs/:tag/withdraw", lead, s.signed(s.withdraw)},
		{"GET", "/jobs/:tag/papers/:number/:name", view, s.keptPaper},
		{"GET", "/jobs/:tag/pictures", view, s.pictures},
		{"POST", "/jobs/:tag/pictures", work, s.addPicture},
		{"GET", "/jobs/:tag/pictures/:number", view, s.onePicture},
		{"GET", "/jobs/:tag/pictures/:number/file", view, s.picture},
		{"POST", "/jobs/:tag/pictures/:number/mark", work, s.addMark},
		{"POST", "/jobs/:tag/pictures/:number/unmark", work, s.dropMark},
		{"GET", "/library", view, s.library},
		{"GET", "/library/:code", view, s.familyPage},
		{"POST", "/library/:code", lead, s.saveFamily},
		{"GET", "/library/:code/form", lead, s.familyForm},
		{"POST", "/library/:code/form", lead, s.writeFamily},
		{"POST", "/library/:code/variant/:variant", lead, s.saveVariant},
		{"GET", "/instruments", view, s.instruments},
		{"POST", "/instruments", work, s.saveInstrument},
		{"GET", "/toolbox", view, s.toolbox},
		{"GET", "/toolbox/:name", view, s.tool},
		{"POST", "/toolbox/:name/put", work, s.putFigure},
		{"GET", "/api/v1/calc", open, s.calcList},
		{"GET", "/api/v1/openapi.json", open, s.openAPI},
		{"POST", apiCalcPath, open, s.calc},
		{"POST", apiExplainPath, open, s.explainCase},
	}
}
