package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The reference tables of the patterns and rules, cell for cell, typed as a user types them. */
public class CatalogueTest extends AtDesk {
    private static final String STATIONS = "category,value\nNorth Sluice,520\nHeron Weir,400\nMill Race,150\nAlder Gate,200\nStone Leat,\nFern Pool,0\n";
    private static final String TARGETS = "category,value,target\nNorth Sluice,520,450\nHeron Weir,400,400\nMill Race,150,380\nAlder Gate,-20,100\n";
    private static final String DAYS = "category,value\nMon,400\nTue,200\nWed,500\nThu,0\n";
    private static final String MONTHS = "category,value\n2031-01,50\n2031-02,60\n2031-03,45\n2031-04,\n2031-05,45\n";
    private static final String BALANCE = "category,kind,value\nOpening,start,30\nRain,change,20\nRelease,change,-70\nSeepage,change,-5\nInflow,change,65\n"
            + "Closing,total,40\n";
    private static final String LEVELS = "category,from,to\nA,1,3\nB,-2,2\nC,-5,-1\nD,,1\n";

    @DataProvider
    Object[][] tables() {
        return new Object[][] {
            {"split", STATIONS, "pattern: columns, value: value, classify: {split: {at: 400}}", """
                category,below,above
                North Sluice,,520
                Heron Weir,,400
                Mill Race,150,
                Alder Gate,200,
                Stone Leat,,
                Fern Pool,0,
                """},
            {"bands", STATIONS, "pattern: columns, value: value, classify: {bands: {limits: [0.5, 1], of: 400}}", """
                category,band 1,band 2,band 3
                North Sluice,,,520
                Heron Weir,,,400
                Mill Race,150,,
                Alder Gate,,200,
                Stone Leat,,,
                Fern Pool,0,,
                """},
            {"bands, ties below, named", STATIONS, "pattern: columns, value: value, classify: {bands: {limits: [0.5, 1], of: 400, ties: below, names: [l, m, h]}}", """
                category,l,m,h
                North Sluice,,,520
                Heron Weir,,400,
                Mill Race,150,,
                Alder Gate,200,,
                Stone Leat,,,
                Fern Pool,0,,
                """},
            {"cap and highlight", DAYS, "pattern: columns, value: value, cap: {share: 0.5}, classify: {highlight: {largest: 1}}", """
                category,rest body,rest cap,highlighted body,highlighted cap
                Mon,300,100,,
                Tue,100,100,,
                Wed,,,400,100
                Thu,0,,,
                """},
            {"sign", TARGETS, "pattern: columns, value: value, classify: {sign: {}}", """
                category,negative,positive
                North Sluice,,520
                Heron Weir,,400
                Mill Race,,150
                Alder Gate,-20,
                """},
            {"to-target", TARGETS, "pattern: to-target, value: value, target: target", """
                category,met,remaining,above,unjudged
                North Sluice,450,,70,
                Heron Weir,400,,,
                Mill Race,150,230,,
                Alder Gate,-20,100,,
                """},
            {"marker", TARGETS, "pattern: marker, columns: value, points: target, classify: {split: {at: 400}}", """
                category,value,below,above
                North Sluice,520,,450
                Heron Weir,400,,400
                Mill Race,150,380,
                Alder Gate,-20,100,
                """},
            {"progress", TARGETS, "pattern: progress, value: value, target: target, bands: [{name: a, width: 0.25}, {name: b, width: 0.75}]", """
                category,a,b,position
                North Sluice,0.25,0.75,1
                Heron Weir,0.25,0.75,1
                Mill Race,0.25,0.75,0.39473684210526316
                Alder Gate,0.25,0.75,0
                """},
            {"variance by period", MONTHS, "pattern: variance, value: value, against: {previous: period}", """
                category,value,reference,up,down,level
                2031-01,50,,,,
                2031-02,60,50,0.2,,
                2031-03,45,60,,-0.25,
                2031-04,,,,,
                2031-05,45,,,,
                """},
            {"variance, zero without a reference", MONTHS, "pattern: variance, value: value, against: {previous: period}, without-reference: zero", """
                category,value,reference,up,down,level
                2031-01,50,,,,0
                2031-02,60,50,0.2,,
                2031-03,45,60,,-0.25,
                2031-04,,,,,
                2031-05,45,,,,0
                """},
            {"variance of a later month alone", MONTHS, "pattern: variance, value: value, against: {previous: period}, as: [amount, percent], slice: {category: 2031-03}", """
                category,value,reference,up amount,down amount,level amount,up percent,down percent,level percent
                2031-03,45,60,,-15,,,-0.25,
                """},
            {"variance by row, in amounts", TARGETS, "pattern: variance, value: value, against: {previous: row}, as: amount", """
                category,value,reference,up,down,level
                North Sluice,520,,,,
                Heron Weir,400,520,,-120,
                Mill Race,150,400,,-250,
                Alder Gate,-20,150,,-170,
                """},
            {"waterfall", BALANCE, "pattern: waterfall, value: value, kind: kind", """
                category,spacer,rise,fall,start,subtotal,total,rise under,fall under,level
                Opening,,,,30,,,,,30
                Rain,30,20,,,,,,,50
                Release,0,,50,,,,,-20,-20
                Seepage,-20,,-5,,,,,,-25
                Inflow,0,40,,,,,-25,,40
                Closing,,,,,,40,,,40
                """},
            {"waterfall by names, closing", DAYS, "pattern: waterfall, value: value, starts: [Mon], closing: End", """
                category,spacer,rise,fall,start,subtotal,total,rise under,fall under,level
                Mon,,,,400,,,,,400
                Tue,400,200,,,,,,,600
                Wed,600,500,,,,,,,1100
                Thu,1100,0,,,,,,,1100
                End,,,,,,1100,,,1100
                """},
            {"breakdown", "category,value\nTurbines,60\nPumps,30\nGates,10\n", "pattern: breakdown, value: value", """
                category,spacer,part,part under,total
                Total,,,,100
                Turbines,40,60,,
                Pumps,10,30,,
                Gates,0,10,,
                """},
            {"breakdown below zero", "category,value\nTurbines,60\nReturn,-80\nGates,10\n", "pattern: breakdown, value: value", """
                category,spacer,part,part under,total
                Total,,,,-10
                Turbines,-10,-60,,
                Return,0,10,-70,
                Gates,0,10,,
                """},
            {"tornado", "category,a,b\nUpper,120,96\nLower,3,\n", "pattern: tornado, left: a, right: b", """
                category,left,right
                Upper,-120,96
                Lower,-3,
                """},
            {"diverging", TARGETS + "Zero,0,1\n", "pattern: diverging, value: value", """
                category,negative,positive
                North Sluice,,520
                Heron Weir,,400
                Mill Race,,150
                Alder Gate,20,
                Zero,,
                """},
            {"dial", "value\n15.47\n", "pattern: dial, value: value, scale: [-100, 100]", """
                slice,size,role
                below rest,100,rest
                below fill,0,fill
                above fill,15.47,fill
                above rest,84.53,rest
                hidden,200,hidden
                """},
            {"ring", "value,target\n72,100\n", "pattern: ring, value: value, target: target", """
                slice,size,role
                met,72,fill
                remaining,28,rest
                """},
            {"range", LEVELS, "pattern: range, from: from, to: to", """
                category,spacer,span,span under
                A,1,2,
                B,0,2,-2
                C,-1,-4,
                D,,,
                """},
            {"text-bar", TARGETS, "pattern: text-bar, value: value, per: 100, glyph: '#'", """
                category,bar left,bar
                North Sluice,,#####
                Heron Weir,,####
                Mill Race,,##
                Alder Gate,"",
                """},
            {"rank with rest", TARGETS, "pattern: to-target, value: value, target: target, rank: {by: value, top: 1, rest: Others}", """
                category,met,remaining,above,unjudged
                North Sluice,450,,70,
                Others,530,350,,
                """}};
    }

    @Test(dataProvider = "tables")
    public void seriesComeOutCellForCell(String what, String data, String chart, String expected) {
        String category = data.startsWith("category") ? ", category: category" : "";
        desk.with("t.csv", data).with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {" + chart + category + "}\n");
        Desk.Answer answer = desk.type("series", "DESK/b.yaml", "--as", "csv");
        assertThat(answer.err()).isEmpty();
        assertThat(answer.out()).as(what).isEqualTo(expected);
        assertThat(desk.type("check", "DESK/b.yaml").code()).as(what).isZero();
    }

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {
            {"value: value, classify: {bands: {limits: [2, 1]}}", "DESK/t.csv:2: 'A': limit 1 is 2, limit 2 is 1; limits must rise"},
            {"value: value, classify: {bands: {limits: []}}", "'bands': bands need at least one limit"},
            {"value: value, classify: {bands: {limits: 1}}", "'limits' must be a list, not '1'"},
            {"value: value, classify: {bands: {limits: [1], names: [a]}}", "'bands': 1 limits make 2 bands, and there are 1 names"},
            {"value: value, classify: {highlight: {largest: 0}}", "'largest': must be a whole number from 1 up"},
            {"value: value, classify: {highlight: {largest: 1, first: 1}}", "'highlight': takes exactly one of largest, smallest, first, last, names and where, not 2"},
            {"value: value, classify: {highlight: {names: [Aa]}}", "DESK/t.csv, column 'category': there is no 'Aa'. Did you mean 'A'?"},
            {"value: value, classify: {highlight: {first: 1, ties: first}}", "'ties': goes with largest or smallest"},
            {"value: value, classify: {split: {at: 1}, sign: {}}", "'classify': takes one rule (split, bands, highlight or sign), not 2"},
            {"value: value, cap: {share: 2}", "'share': must be above 0 and at most 1"},
            {"value: value, cap: {height: 0}", "DESK/t.csv:2: 'A': the cap's height is 0; it must be above zero"},
            {"value: value, rank: {by: value, top: 0}", "'top': must be a whole number from 1 up"},
            {"value: value, rank: {by: value, rest: R}", "'rest': names what 'top' leaves over, and there is no 'top'"},
            {"value: value, rank: {top: 1}", "the key 'by' is missing"},
            {"value: value, labels: {show: change}", "chart 'c': the pattern 'columns' has no change for its labels to show"},
            {"pattern: to-target, value: value, target: minus", "DESK/t.csv:2: 'A': target is -1; a target is not below zero; the pattern 'variance' "
                    + "shows a figure against one that may be"},
            {"pattern: to-target, value: value, target: minus, outline: maybe", "'outline' must be true or false, not 'maybe'"},
            {"pattern: progress, value: value, target: value, bands: [{name: a, width: 0.4}]", "'bands': the bands' widths must add up to 1, not 0.4"},
            {"pattern: progress, value: value, target: value, bands: [{name: a, width: 1}, {name: b, width: 0}]", "'bands': every band's width must be above 0"},
            {"pattern: progress, value: value, target: value, bands: [{name: a, widht: 1}]", "unknown key 'widht'. Did you mean 'width'?"},
            {"pattern: variance, value: value, against: {previous: moon}", "'previous' can't be 'moon'."},
            {"pattern: variance, value: value, against: {previous: month}", "DESK/t.csv:2: 'A': category is 'A'; it names no month, so the period before it can't be told"},
            {"pattern: waterfall, value: value, kind: category", "DESK/t.csv:2: 'A': category is 'A'; a row is a start, change, subtotal or total"},
            {"pattern: waterfall, value: value, kind: category, starts: [A]", "'kind': stands in for 'starts', 'subtotals' and 'totals'; give it or them, not both"},
            {"pattern: waterfall, value: value, starts: [Z]", "there is no 'Z'."},
            {"pattern: breakdown, value: value, total-name: A", "'A' stands on 2 rows"},
            {"pattern: tornado, left: value, right: minus", "DESK/t.csv:2: 'A': right is -1; a tornado shows sizes, which are not below zero"},
            {"pattern: range, from: value, to: minus", "DESK/t.csv:2: 'A': from is 1, to is -1; a bar ends where it starts or after it"},
            {"pattern: dial, value: value, scale: [1]", "'scale': takes two numbers, the low end and the high one"},
            {"pattern: dial, value: value, scale: [2, 1]", "'scale': the scale must rise, and goes from 2 to 1"},
            {"pattern: dial, value: value, scale: [0, 9], bands: [{name: a, to: 5}]", "'bands': the bands end at 5 and the scale at 9"},
            {"pattern: dial, value: value, scale: [0, 9]", "the pattern 'dial' shows one figure and there are 2 rows; keep one with 'slice', or total them first"},
            {"pattern: ring, value: value, target: zero, slice: {category: A}", "target is 0; a ring's target is above zero"},
            {"pattern: ring, value: minus, target: value, slice: {category: A}", "value is -1; a ring shows a share, which is not below zero"},
            {"pattern: text-bar, value: value, glyph: ab", "'glyph': 'ab' is not one character"},
            {"pattern: text-bar, value: value, width: 0", "'width': must be a whole number from 1 to 32767"},
            {"pattern: text-bar, value: value, per: 0.00001", "the number of characters is 100000; a cell holds at most 32767; give a larger 'per'"},
            {"pattern: text-bar, value: value, rest: '.'", "'rest': goes together with 'of'"},
            {"pattern: text-bar, value: value, smooth: true, glyph: '#'", "'smooth': eighths go with the glyph █"}};
    }

    @Test(dataProvider = "mistakes")
    public void mistakeIsNamedWithItsPlaceAndWhatWouldBeRight(String chart, String message) {
        String pattern = chart.startsWith("pattern") ? chart : "pattern: columns, " + chart;
        String category = chart.contains("dial") || chart.contains("ring,") ? "" : ", category: category";
        desk.with("t.csv", "category,value,minus,zero\nA,1,-1,0\nB,2,1,0\n")
                .with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {" + pattern + category + "}\n");
        Desk.Answer answer = desk.type("series", "DESK/b.yaml");
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.out()).isEmpty();
        assertThat(answer.err()).startsWith("gorge: ").contains(message).doesNotContain("Exception");
    }
}
