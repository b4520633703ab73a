package dev.trellisgorge.engine.workbook;

import static java.util.Map.entry;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.sheet.TextLine;
import dev.trellisgorge.sheet.TextLook;
import dev.trellisgorge.sheet.XmlWriter;
import java.io.OutputStream;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Writes a part of an Office Open XML package (ECMA-376). Used by one thread. */
final class OfficeXml extends XmlWriter<OfficeXml> {
    static final String SHEETS = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    static final String RELATIONSHIPS = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
    static final String CHARTS = "http://schemas.openxmlformats.org/drawingml/2006/chart";
    static final String DRAWINGS = "http://schemas.openxmlformats.org/drawingml/2006/main";
    private static final Map<String, String> BASE = Map.ofEntries(entry("r", RELATIONSHIPS), entry("a", DRAWINGS), entry("c", CHARTS), entry("xdr", "http://schemas.openxmlformats.org/drawingml/2006/spreadsheetDrawing"),
            entry("c15", "http://schemas.microsoft.com/office/drawing/2012/chart"), entry("c16r3", "http://schemas.microsoft.com/office/drawing/2017/03/chart"),
            entry("x14", "http://schemas.microsoft.com/office/spreadsheetml/2009/9/main"), entry("xm", "http://schemas.microsoft.com/office/" + "ex" + "cel/2006/main"), // holds a program's name: it is put together
            entry("xml", "http://www.w3.org/XML/1998/namespace"), entry("cp", "http://schemas.openxmlformats.org/package/2006/metadata/core-properties"), entry("dc", "http://purl.org/dc/elements/1.1/"),
            entry("dcterms", "http://purl.org/dc/terms/"), entry("xsi", "http://www.w3.org/2001/XMLSchema-instance"));

    private OfficeXml(OutputStream out, Map<String, String> spaces, String root, String... used) {
        super(out, spaces, root, used);
    }

    /** A part whose elements have prefixes. */
    static OfficeXml prefixed(OutputStream out, String root, String... used) {
        return new OfficeXml(out, BASE, root, used);
    }

    /** A part whose elements are of a space without a prefix. */
    static OfficeXml of(OutputStream out, String space, String root, String... used) {
        Map<String, String> spaces = new HashMap<>(BASE);
        spaces.put("", space);
        return new OfficeXml(out, spaces, root, used);
    }

    /** The part that says who made a package. */
    static OfficeXml properties(OutputStream out) {
        return prefixed(out, "cp:coreProperties", "dc", "dcterms", "xsi");
    }

    @Override
    protected OfficeXml self() {
        return this;
    }

    /** An element that holds one value alone. */
    OfficeXml value(String name, Object value) {
        return leaf(name, "val", String.valueOf(value));
    }

    /** A colour as drawings state it. */
    OfficeXml fill(Color color) {
        return open("a:solidFill").value("a:srgbClr", hex(color)).close(1);
    }

    /** How words look, in an element that says it. */
    OfficeXml look(String element, TextLook look) {
        open(element, "sz", String.valueOf(look.size()), "b", look.bold().map(String::valueOf).orElse(null)).fill(look.color());
        look.font().ifPresent(font -> leaf("a:latin", "typeface", font));
        return close(1);
    }

    /** Lines of words, where a body of them is written. */
    OfficeXml lines(List<TextLine> lines) {
        for (TextLine line : lines) {
            open("a:p");
            line.at().ifPresent(at -> leaf("a:pPr", "algn", switch (at) {
                case LEFT -> "l";
                case CENTRE -> "ctr";
                case RIGHT -> "r";
            }));
            line.runs().forEach(run -> open("a:r").look("a:rPr", run.look()).element("a:t", run.words()).close(1));
            close(1);
        }
        return this;
    }

    static String hex(Color color) {
        return color.toString().substring(1).toUpperCase(Locale.ROOT);
    }
}
