package calc_test

import (
	"testing"

	"corvek/core/calc"
	"corvek/core/field"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestCalculatorsRefuseByFieldName(t *testing.T) {
	cases := []struct{ calc, in, field string }{
		{"cylinder", `{"bore":"63 mm","rod":"63 mm","pressure":"1 bar"}`, "rod"},
		{"cylinder", `{"bore":"63 mm","pressure":"1 bar","return_pressure":"1 bar"}`, "return_pressure"},
		{"cylinder", `{"bore":"63","pressure":"1 bar"}`, "bore"},
		{"cylinder", `{"bore":"-63 mm","pressure":"1 bar"}`, "bore"},
		{"cylinder", `{"bore":"63 mm","pressure":"3000 lb"}`, "pressure"},
		{"cylinder", `{"bore":"63 mm","pressure":"1 bar","colour":"red"}`, "colour"},
		{"cylinder", `{"bore":"63 mm","pressure":"1 bar","flow":"0 L/min","stroke":"1 m"}`, "flow"},
		{"cylinder", `{"bore":"63 mm"}`, "pressure"},
		{"cylinder", `{"bore":"63 mm"`, ""},
		{"cylinder", `[]`, ""},
		{"nonesuch", `{}`, "name"},
		{"readings", `{"readings":["50 mm","fifty"]}`, "readings[1]"},
		{"readings", `{"readings":[]}`, "readings"},
		{"readings", `{"readings":["50 mm"],"nominal":"50 mm"}`, "kind"},
		{"readings", `{"grid":[["1 mm","2 mm"],["1 mm"]]}`, "grid[1]"},
		{"judge", `{"value":"5 mm"}`, "upper"},
		{"judge", `{"value":"5 mm","upper":"5 bar"}`, "upper"},
		{"feeler", `{"goes":["9 thou"],"stops":["7 thou"]}`, "stops"},
		{"feeler", `{"goes":["7 thou"],"stops":["0.007 in"]}`, "stops"},
		{"feeler", `{"goes":["5 thou"],"drags":["8 thou"],"stops":["7 thou"]}`, "drags"},
		{"feeler", `{"goes":[],"stops":[]}`, "goes"},
		{"shims", `{"measured_clearance":"5 thou","lower":"3 thou","upper":"7 thou","fitted":["?"]}`, "fitted[0]"},
		{"wear_life", `{"nominal":"5 mm","limit":"5 mm","measured":"5 mm","hours":5}`, "limit"},
		{"wear_life", `{"nominal":"5 mm","limit":"4 mm","measured":"4.5 mm","hours":0}`, "hours"},
		{"coil_spring", `{"free_length":"40 mm","rate":"1 N/mm","installed_length":"41 mm"}`, "installed_length"},
		{"coil_spring", `{"free_length":"40 mm","rate":"1 N/mm","wire":"1 mm","installed_length":"31 mm"}`, "wire"},
		{"bolt_torque", `{"thread":"M12","class":"grade 5"}`, "class"},
		{"bolt_torque", `{"thread":"M13","class":"8.8"}`, "thread"},
		{"bolt_torque", `{"thread":"1/2","class":"grade 5"}`, "thread"},
		{"bolt_pattern", `{"count":2.5,"torque":"5 N·m"}`, "count"},
		{"annular_leak", `{"diameter":"2 mm","clearance":"0.1 mm","length":"5 mm","pressure_drop":"1 bar",` +
			`"kinematic_viscosity":"46 cSt"}`, "density"},
		{"annular_leak", `{"diameter":"2 mm","clearance":"0.1 mm","length":"0 mm","pressure_drop":"1 bar",` +
			`"dynamic_viscosity":"46 cP"}`, "length"},
		{"clearance", `{"hole":"2 mm","hole_max":"3 mm","shaft":"1 mm"}`, "hole_max"},
		{"rebuild_or_replace", `{"parts":1,"labour_hours":1,"rate":1,"rebuild_days":1,"life_fraction":0}`,
			"life_fraction"},
		{"intensifier", `{"drive_bore":"120 mm","drive_pressure":"6 bar"}`, "plunger_diameter"},
		{"intensifier", `{"drive_bore":"120 mm","drive_pressure":"6 bar","plunger_diameter":"20 mm",` +
			`"plunger_area":"3 cm2"}`, "plunger_area"},
		{"intensifier", `{"drive_bore":"120 mm","drive_pressure":"6 bar","plunger_diameter":"20 mm",` +
			`"stated":{"speed":"5 mm"}}`, "stated.speed"},
		{"intensifier", `{"drive_bore":"120 mm","drive_pressure":"6 bar","plunger_diameter":"20 mm",` +
			`"stated":{"ram_force":"5 N"}}`, "stated.ram_force"},
		{"stored_energy", `{"volume":"2 L","pressure":"100 bar","medium":"steam"}`, "medium"},
		{"stored_energy", `{"volume":"2 L","pressure":"100 bar","medium":"gas","gamma":1}`, "gamma"},
		{"stored_energy", `{"volume":"240 thou","pressure":"100 bar","medium":"gas"}`, "volume"},
		{"piston_ripple", `{"pistons":9,"dead":9,"speed":"1 rpm","displacement":"1 cc/rev"}`, "dead"},
		{"piston_ripple", `{"pistons":3,"delivery":[1,1],"speed":"1 rpm","displacement":"1 cc/rev"}`, "delivery"},
		{"piston_ripple", `{"pistons":3,"delivery":[1,1,2],"speed":"1 rpm","displacement":"1 cc/rev"}`, "delivery[2]"},
		{"piston_ripple", `{"pistons":3,"delivery":[1,1,1],"dead":1,"speed":"1 rpm","displacement":"1 cc/rev"}`,
			"dead"},
		{"flow_divider", `{"flow_a":"0 L/min","flow_b":"0 L/min"}`, "flow_b"},
		{"disc_stack", `{"outside":"50 mm","inside":"25 mm","thickness":"2 mm","cone_height":"1.4 mm",` +
			`"stack":"<x"}`, "stack"},
		{"disc_stack", `{"outside":"50 mm","inside":"25 mm","thickness":"2 mm","cone_height":"1.4 mm","stack":"<",` +
			`"deflection":"1.5 mm"}`, "deflection"},
		{"disc_stack", `{"outside":"50 mm","inside":"25 mm","thickness":"2 mm","cone_height":"1.4 mm","stack":"<",` +
			`"force":"900 kN"}`, "force"},
		{"disc_stack", `{"outside":"50 mm","inside":"25 mm","thickness":"2 mm","cone_height":"1.4 mm","stack":"<",` +
			`"force":"1 kN","installed_height":"3 mm"}`, "installed_height"},
		{"friction_pack", `{"plates":"sxf","friction":0.1,"force":"8 kN","outer":"160 mm","inner":"120 mm"}`, "plates"},
		{"mesh", `{"mesh":103}`, "mesh"},
		{"viscosity", `{"v40":"46 cSt","v100":"46 cSt","temperature":"60 °C"}`, "v100"},
		{"cleanliness", `{"counts":[100,200,5]}`, "counts[1]"},
		{"cleanliness", `{"counts":[100,20]}`, "counts"},
		{"fluid_balance", `{"capacity":"120 L","drained":"1 L","water":"2 L"}`, "water"},
		{"residual", `{"capacity":"10 L","drained":"11 L"}`, "drained"},
		{"fill_plan", `{"capacity":"10 L","step":"0 L","cap":"0 L"}`, "step"},
		{"pressure_decay", `{"volume":"2 L","start_pressure":"100 bar","end_pressure":"97 bar","duration":"20 min",` +
			`"start_temperature":"30 °C","medium":"gas"}`, "end_temperature"},
		{"creep_leak", `{"creep":"1 mm","duration":"1 min"}`, "area"},
		{"standby", `{"book_low":"20 bar","book_high":"24 bar","ceiling":"22 bar","measured":"22 bar",` +
			`"flow":"60 L/min","flow_needed":"66 L/min","policy":"tune"}`, "ceiling"},
		{"oring_gland", `{"inside":"44 mm","section":"3.5 mm","use":"static_radial","gland_diameter":"45 mm",` +
			`"gland_width":"4.8 mm","pressure":"210 bar"}`, "bore"},
		{"oring_find", `{"inside":"44 mm","section":"0 mm"}`, "section"},
		{"lip_seal_find", `{"shaft":"20 mm","seal_outside":"35 mm"}`, "seal_state"},
		{"shelf_life", `{"elastomer":"PTFE","cure_date":"2017-Q3"}`, "elastomer"},
		{"shelf_life", `{"elastomer":"NBR","cure_date":"2017-Q5"}`, "cure_date"},
		{"shelf_life", `{"elastomer":"NBR","cure_date":"2028-Q3","on":"2028-06-30"}`, "on"},
		{"judge", `{"value":"60 °C","upper":"65 °C","uncertainty":"-2 K"}`, "uncertainty"},
		// A temperature is no width.
		{"judge", `{"value":"60 °C","upper":"65 °C","resolution":"1 °C"}`, "resolution"},
		{"compatible", `{"elastomer":"WOOD","fluid":"air"}`, "elastomer"},
		{"compatible", `{"elastomer":"NBR","fluid":"soup"}`, "fluid"},
		{"compatible", `{"elastomer":"VMQ","fluid":"phosphate ester"}`, "fluid"},
	}
	for _, c := range cases {
		t.Run(c.calc+" "+c.field, func(t *testing.T) {
			_, err := calc.Run(c.calc, []byte(c.in))
			var fe *field.Error
			require.ErrorAs(t, err, &fe)
			assert.Equal(t, c.field, fe.Field)
			assert.NotEmpty(t, fe.Text)
		})
	}
}
