package httpapi

import (
	"fmt"
	"net/http"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/gin-gonic/gin"

	"corte/core/say"
	"corte/internal/record"
)

// A need is what a caller must be for a call.
type need uint8

const (
	anybody need = iota // also a stranger
	oneself             // who signed in, with a password or a passkey; of no shop either
	looking             // a viewer
	working             // a learner
	keeping             // a worker
	running             // an owner
)

// may lists what each call of the contract needs; nothing else decides it. A test
// compares it with the table in docs/security.md and tries every call.
var may = map[need][]string{
	anybody: {
		"getLive", "getHealth", "getSession", "signIn", "signOut", "recover", "challengePasskey", "signInByPasskey", "takeHand",
		"getInvitation", "acceptInvitation", "readReport", "readCalendar",
	},
	oneself: {
		"enterShop", "getAccount", "changePassword", "changePin", "makeRecoveryCodes", "challengeNewPasskey", "addPasskey", "dropPasskey", "signOutEverywhere",
	},
	looking: {
		"createPlan", "createSweep", "createComparison", "createSupportPlan", "listBlades", "draftBlade", "readUnmarkedBlade", "lookAtBlade", "lookAtWall", "lookAtEdge", "getBlade", "listUsualSaws", "listUsualBlades",
		"getPhoto", "printLabels", "listLog", "getSeason", "listFaults", "getSurvey", "getMoney", "getLife", "listStandIns", "getCare", "listCleaners", "checkWash",
		"getWash", "listBaths", "mixBath", "getCalendar", "readJobList", "listJobs", "getPace", "getJob", "tryJob", "getJobFile", "planStock", "getOwning", "planOwning",
		"planFirstBlades", "listTrials", "getTrial", "listTraceWords", "listTraces", "getTrace", "getDadoSet", "planGroove", "listGrooves", "getGroove", "planJoint", "planSpecialCut",
		"listLessons", "listSaws", "draftSaw", "getSaw", "getShelf", "getBench", "getMounting", "workOutTruing", "listTruings", "listGauges", "streamGauges", "streamEvents", "getShop",
		"listMaterials", "readLength", "listPeople", "listLicences", "listLogImports", "listDamagedRows", "listDrills", "getDrillTask", "answerDrill", "getWhy", "listen",
	},
	working: {
		"logCut", "judgeBlade", "inspectBlade", "noteBlade", "startWash", "stepWash", "dropWash", "endWash", "strainBath", "tickJob", "startTrial", "cutTrialPiece",
		"gradeTrialPiece", "endTrial", "startTrace", "setTraceEvidence", "dropTrace", "endTrace", "startGroove", "dropGroove", "testGroove", "endGroove", "moveSaw",
		"startMounting", "stepMounting", "dropMounting", "endMounting", "saveTruing", "placeGauge",
	},
	keeping: {
		"addBlade", "changeBlade", "retireBlade", "restoreBlade", "setPhoto", "dropPhoto", "strikeRow", "amendRow", "mendBlade", "sendBlade", "returnBlade", "makeBath",
		"emptyBath", "addJob", "changeJob", "dropJob", "planJob", "changeOwning", "setDadoSet", "renewParts", "addSaw", "changeSaw", "retireSaw", "restoreSaw",
		"exportRack", "previewImport", "exportLog", "previewLogImport", "addGuest",
	},
	running: {
		"importRack", "importLog", "newCalendar", "withdrawCalendar", "changeShop", "listCopies", "makeCopy", "repairRow", "removeRow", "getShopFile", "bringShopFile", "previewShopFile",
		"addMember", "changeMember", "removeMember", "dropPin", "invite", "signOff", "listPasses", "withdrawPass", "addDevice", "addToken", "listAudit", "foundShop",
	},
}

// met reports whether an actor meets a need.
func (n need) met(a record.Actor) bool {
	switch n {
	case anybody:
		return true
	case oneself:
		return a.Way == record.SignedIn
	case looking:
		return a.Role >= record.Viewer
	case working:
		return a.Role >= record.Learner
	case keeping:
		return a.Role >= record.Worker
	case running:
		return a.Role >= record.Owner
	}
	return false
}

// word names who meets a need, for people.
func (n need) word() say.Line {
	return say.Word([...]string{"anybody", "people signed in with a password", "a viewer", "a learner", "a worker", "an owner"}[n])
}

// needs maps each route, by method and path as Gin names them, to its need. It fails
// at start if a call isn't in the table.
func needs(spec *openapi3.T) (map[string]need, error) {
	by := map[string]need{}
	for n, calls := range may {
		for _, call := range calls {
			if _, twice := by[call]; twice {
				return nil, fmt.Errorf("%s is in the table of who may what twice", call)
			}
			by[call] = n
		}
	}
	out := map[string]need{}
	for path, item := range spec.Paths.Map() {
		for method, op := range item.Operations() {
			call := strings.ToLower(op.OperationID[:1]) + op.OperationID[1:] // the embedded contract has them as Go names them
			n, ok := by[call]
			if !ok {
				return nil, fmt.Errorf("it isn't set who may %s", call)
			}
			delete(by, call)
			out[method+" "+base+strings.NewReplacer("{", ":", "}", "").Replace(path)] = n
		}
	}
	for call := range by {
		return nil, fmt.Errorf("%s is in the table of who may what, and not in the contract", call)
	}
	return out, nil
}

// inDemo reports whether a call can be made at all in the demo beside a shop:
// none that is about an account, and none that hands out a way in. What needs an
// owner is refused with the rest, since nobody owns the demo.
func inDemo(c *gin.Context, n need) bool {
	switch c.FullPath() {
	case base + "/live", base + "/health", base + "/session":
		return c.Request.Method == http.MethodGet
	case base + "/blades/:id/guests":
		return false
	}
	return n != anybody && n != oneself
}

// onlyWhoMay refuses, before anything of a request is looked at, what its actor
// may not.
func (s *server) onlyWhoMay(need map[string]need) gin.HandlerFunc {
	return func(c *gin.Context) {
		n, a := need[c.Request.Method+" "+c.FullPath()], record.ActorOf(c.Request.Context())
		switch {
		case s.beside && !inDemo(c, n):
			refuse(c, http.StatusForbidden, "", say.Of("The demo shop has no accounts, people or links to change. Do this in your own shop."))
		case n.met(a):
		case a.Way == record.Out:
			refuse(c, http.StatusUnauthorized, "", say.Of("Sign in first."))
		case a.Way == record.Tablet && a.Member == nil:
			refuse(c, http.StatusForbidden, "", say.Of("Tap your name first."))
		case a.Way == record.Tablet && n > keeping:
			refuse(c, http.StatusForbidden, "", say.Of("You can't do this on a shop tablet. An owner has to sign in with a password."))
		case a.Role == record.Nobody:
			refuse(c, http.StatusForbidden, "", say.Of("You no longer belong to a shop here. Ask an owner to invite you."))
		default:
			refuse(c, http.StatusForbidden, "", say.Of("This needs %s; you are a %s in this shop. An owner can do it, or give you another role.", n.word(), a.Role))
		}
	}
}
