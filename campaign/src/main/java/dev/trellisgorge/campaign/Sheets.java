package dev.trellisgorge.campaign;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Workbooks of both formats, part by part, with odd parts among them. */
final class Sheets {
    private static final String HEAD = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>";
    private static final List<String> COUNTS = List.of("1", "2", "3", "0", "-5", "x", "", "2000000000", "99999999999", "16384", "1.5");
    private static final List<String> REFERENCES = List.of("A1", "A1:B2", "", "B2:A1", "XFD1048576", "ZZZZ1", "A1:XFD1048576", "!!", "A0", "A99999999", "B3");

    private Sheets() {
    }

    private static byte[] zip(Map<String, String> parts, Choices choices) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (Map.Entry<String, String> part : parts.entrySet()) {
                if (!choices.oneIn(60)) {
                    zip.putNextEntry(new ZipEntry(part.getKey()));
                    zip.write((choices.oneIn(40) ? Hard.damaged(part.getValue(), choices) : part.getValue()).getBytes(StandardCharsets.UTF_8));
                    zip.closeEntry();
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return choices.oneIn(20) ? Hard.damaged(bytes.toByteArray(), choices) : bytes.toByteArray();
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\"", "&quot;").replaceAll("[\\x00-\\x08\\x0b\\x0c\\x0e-\\x1f\\ud800-\\udfff\\ufffe\\uffff]", "");
    }

    private static Trial of(String name, byte[] bytes, Choices choices) {
        String layout = choices.oneIn(3) ? "{file: " + name + ", " + Choices.of(choices, "sheet: S", "sheet: Other", "range: \"A1:C3\"", "range: \"B\"", "range: \"A:XFD\"", "header-row: 2", "header-rows: 2", "header-rows: 50", "total-row: drop") + "}" : name;
        return new Trial(name.endsWith("ods") ? "spreadsheet" : "sheet", Map.of("b.yaml", Trial.bytes("brief: 1\ndata: {t: " + layout + "}\ncharts:\n  c: {pattern: columns, category: n, value: v}\n"), name, bytes),
                List.of(Choices.of(choices, "check", "series"), "HERE/b.yaml"));
    }

    static Trial sheet(Choices choices) {
        StringBuilder rows = new StringBuilder();
        List<List<String>> cells = Makers.rows(choices, 8);
        rows.append("<row r=\"1\"><c r=\"A1\" t=\"inlineStr\"><is><t>n</t></is></c><c r=\"B1\" t=\"inlineStr\"><is><t>d</t></is></c><c r=\"C1\" t=\"inlineStr\"><is><t>v</t></is></c></row>");
        for (int row = 0; row < cells.size(); row++) {
            rows.append("<row r=\"").append(choices.oneIn(25) ? choices.of(COUNTS) : String.valueOf(row + 2)).append("\">");
            for (int column = 0; column < 3; column++) {
                String cell = cells.get(row).get(column);
                String at = choices.oneIn(30) ? choices.of(REFERENCES) : "ABC".substring(column, column + 1) + (row + 2);
                String type = column == 0 ? "inlineStr" : choices.oneIn(8) ? Choices.of(choices, "s", "b", "e", "d", "str", "n", "x") : "n";
                rows.append("<c r=\"").append(at).append("\" t=\"").append(type).append('"').append(choices.oneIn(9) ? " s=\"" + choices.of(COUNTS) + "\"" : "").append('>')
                        .append(type.equals("inlineStr") ? "<is><t>" + escaped(cell) + "</t></is>" : (choices.oneIn(10) ? "<f>1+1</f>" : "") + "<v>" + escaped(cell) + "</v>").append("</c>");
            }
            rows.append("</row>");
        }
        String merged = choices.oneIn(5) ? "<mergeCells><mergeCell ref=\"" + choices.of(REFERENCES) + "\"/><mergeCell/></mergeCells>" : "";
        Map<String, String> parts = new LinkedHashMap<>();
        parts.put("[Content_Types].xml", HEAD + "<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\"><Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/>"
                + "<Default Extension=\"xml\" ContentType=\"application/xml\"/><Override PartName=\"/xl/workbook.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml\"/>"
                + "<Override PartName=\"/xl/worksheets/sheet1.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml\"/></Types>");
        parts.put("_rels/.rels", HEAD + "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship Id=\"r1\" Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument\""
                + " Target=\"xl/workbook.xml\"/></Relationships>");
        parts.put("xl/workbook.xml", HEAD + "<workbook xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\" xmlns:r=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships\"><sheets>"
                + "<sheet name=\"S\" sheetId=\"1\" r:id=\"r1\"/></sheets></workbook>");
        parts.put("xl/_rels/workbook.xml.rels", HEAD + "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship Id=\"r1\""
                + " Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet\" Target=\"worksheets/sheet1.xml\"/></Relationships>");
        parts.put("xl/worksheets/sheet1.xml", HEAD + "<worksheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><sheetData>" + rows + "</sheetData>" + merged + "</worksheet>");
        return of("t.xlsx", zip(parts, choices), choices);
    }

    /** Draws into a workbook, which is also what is charted half of the time. */
    static Trial into(Choices choices) {
        Trial host = sheet(choices);
        String brief = "brief: 1\ndata: {t: " + (choices.oneIn(2) ? "{file: t.xlsx, range: \"A1:C4\"}" : "t.csv") + "}\ncharts:\n  c: {pattern: columns, category: n, value: v, at: \"" + Choices.of(choices, "S!B2", "S!B2:H20", "'S'!A1", "Other!B2", "S!XFD1:XFD2") + "\"}\n";
        return new Trial("into", Map.of("b.yaml", Trial.bytes(brief), "t.csv", Trial.bytes("n,v\na,1\nb,\n"), "t.xlsx", host.files().get("t.xlsx")), List.of("draw", "HERE/b.yaml", "--into", "HERE/t.xlsx", "-o", "HERE/out.xlsx"));
    }

    static Trial spreadsheet(Choices choices) {
        StringBuilder rows = new StringBuilder("<table:table-row><table:table-cell office:value-type=\"string\"><text:p>n</text:p></table:table-cell><table:table-cell office:value-type=\"string\"><text:p>v</text:p></table:table-cell></table:table-row>");
        for (List<String> row : Makers.rows(choices, 8)) {
            rows.append("<table:table-row").append(attribute("table:number-rows-repeated", choices)).append('>');
            rows.append("<table:table-cell office:value-type=\"string\"").append(attribute("table:number-columns-spanned", choices)).append(attribute("table:number-rows-spanned", choices)).append("><text:p>").append(escaped(row.get(0)))
                    .append(choices.oneIn(8) ? "<text:s text:c=\"" + choices.of(COUNTS) + "\"/>" : "").append("</text:p></table:table-cell>");
            String type = Choices.of(choices, "float", "float", "percentage", "currency", "date", "boolean", "string", "x");
            rows.append("<table:table-cell office:value-type=\"").append(type).append("\" office:value=\"").append(escaped(row.get(2))).append("\" office:date-value=\"").append(escaped(row.get(1))).append('"')
                    .append(attribute("table:number-columns-repeated", choices)).append("><text:p>").append(escaped(row.get(2))).append("</text:p></table:table-cell></table:table-row>");
        }
        Map<String, String> parts = new LinkedHashMap<>();
        parts.put("mimetype", "application/vnd.oasis.opendocument.spreadsheet");
        parts.put("content.xml", HEAD + "<office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\" xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\" xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\">"
                + "<office:body><office:spreadsheet><table:table table:name=\"S\">" + rows + "</table:table></office:spreadsheet></office:body></office:document-content>");
        return of("t.ods", zip(parts, choices), choices);
    }

    private static String attribute(String name, Choices choices) {
        return choices.oneIn(25) ? " " + name + "=\"" + choices.of(COUNTS) + "\"" : "";
    }
}
