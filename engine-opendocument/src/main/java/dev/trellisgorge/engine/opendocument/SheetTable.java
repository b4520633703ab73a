package dev.trellisgorge.engine.opendocument;

import java.io.InputStream;
import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntFunction;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.apache.poi.ss.usermodel.DateUtil;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.util.XMLHelper;

/** Writes a sheet's cells as a table, row by row as they are read. Used by one thread. */
final class SheetTable {
    private static final String MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";

    private final SheetOutline outline;
    private final CellLooks looks;
    private final IntFunction<String> shared;
    private final PartWriter part;
    private final Map<String, String> sizes;
    private final int[] heading;
    private int row;
    private int column;

    /**
     * @param shared  the texts that cells share
     * @param sizes   the names of the styles of columns and rows
     * @param heading the rows that stand over each printed page, the first and the one after the last; the same where there are none
     */
    SheetTable(SheetOutline outline, CellLooks looks, IntFunction<String> shared, Map<String, String> sizes, int[] heading, PartWriter part) {
        this.outline = outline;
        this.looks = looks;
        this.shared = shared;
        this.sizes = sizes;
        this.heading = heading;
        this.part = part;
    }

    /** What a column's style is found by. */
    static String width(double points) {
        return "column " + PartWriter.points(points);
    }

    /** What a row's style is found by. */
    static String height(double points) {
        return "row " + PartWriter.points(points);
    }

    void columns() {
        boolean folded = false;
        for (SheetOutline.Columns some : outline.columns()) {
            if (some.folded() && !folded) {
                part.open("table:table-column-group", "table:display", "false");
            } else if (!some.folded() && folded) {
                part.close(1);
            }
            folded = some.folded();
            int count = some.last() - some.first() + 1;
            part.leaf("table:table-column", "table:style-name", sizes.get(width(some.width())), "table:number-columns-repeated", count > 1 ? String.valueOf(count) : null, "table:visibility",
                    folded ? "collapse" : null, "table:default-cell-style-name", "Default");
        }
        part.close(folded ? 1 : 0);
    }

    void rows(InputStream sheet) throws XMLStreamException {
        XMLStreamReader xml = XMLHelper.newXMLInputFactory().createXMLStreamReader(sheet);
        while (xml.hasNext()) {
            if (xml.next() == XMLStreamConstants.START_ELEMENT && xml.getLocalName().equals("row")) {
                row(xml);
            }
        }
        xml.close();
        emptyRows(Math.max(row + 1, heading[1]));
    }

    private void row(XMLStreamReader xml) throws XMLStreamException {
        int at = Integer.parseInt(xml.getAttributeValue(null, "r")) - 1;
        emptyRows(at);
        openRow(1);
        column = 0;
        while (xml.next() != XMLStreamConstants.END_ELEMENT || !xml.getLocalName().equals("row")) {
            if (xml.isStartElement() && xml.getLocalName().equals("c")) {
                cell(xml);
            }
        }
        fill(lastMerged() + 1);
        closeRow();
    }

    /** Cells of merged areas reach on where no cells are stated. */
    private int lastMerged() {
        int last = column - 1;
        while (outline.merged(row, last + 1).isPresent()) {
            last++;
        }
        return last;
    }

    /** Rows without cells, up to one. */
    private void emptyRows(int to) {
        while (row < to) {
            int many = 1;
            Optional<Double> height = outline.height(row);
            while (row + many < to && outline.height(row + many).equals(height) && row + many != heading[0] && row + many != heading[1]) {
                many++;
            }
            openRow(many);
            row += many - 1;
            closeRow();
        }
    }

    private void openRow(int many) {
        if (row == heading[0] && heading[0] < heading[1]) {
            part.open("table:table-header-rows");
        }
        Optional<Double> height = outline.height(row).or(() -> outline.drawing().map(id -> SheetOutline.ROW));
        part.open("table:table-row", "table:style-name", height.map(points -> sizes.get(height(points))).orElse(null), "table:number-rows-repeated", many > 1 ? String.valueOf(many) : null);
    }

    private void closeRow() {
        if (column == 0) {
            part.leaf("table:table-cell");
        }
        part.close(1);
        row++;
        column = 0;
        if (row == heading[1] && heading[0] < heading[1]) {
            part.close(1);
        }
    }

    /** Blank cells, up to a column; those that merged areas take are covered. */
    private void fill(int to) {
        while (column < to) {
            Optional<CellRangeAddress> area = outline.merged(row, column);
            int many = 1;
            while (column + many < to && area.isEmpty() && outline.merged(row, column + many).isEmpty()) {
                many++;
            }
            part.open(area.isPresent() ? "table:covered-table-cell" : "table:table-cell", "table:number-columns-repeated", many > 1 ? String.valueOf(many) : null).close(1);
            column += many;
        }
    }

    private void cell(XMLStreamReader xml) throws XMLStreamException {
        fill(Positions.column(xml.getAttributeValue(null, "r")));
        String stated = xml.getAttributeValue(null, "s");
        int style = stated == null ? 0 : Integer.parseInt(stated);
        String kind = xml.getAttributeValue(null, "t");
        String formula = null;
        String value = null;
        while (xml.next() != XMLStreamConstants.END_ELEMENT || !xml.getLocalName().equals("c")) {
            if (xml.isStartElement() && xml.getNamespaceURI().equals(MAIN)) {
                switch (xml.getLocalName()) {
                    case "f" -> formula = xml.getElementText();
                    case "v" -> value = xml.getElementText();
                    case "t" -> value = (value == null ? "" : value) + xml.getElementText();
                    default -> { }
                }
            }
        }
        Optional<CellRangeAddress> area = outline.merged(row, column);
        boolean covered = area.filter(all -> all.getFirstRow() != row || all.getFirstColumn() != column).isPresent();
        String named = outline.ruled(row, column).map(rules -> looks.name(style, rules)).orElseGet(() -> CellLooks.name(style));
        part.open(covered ? "table:covered-table-cell" : "table:table-cell", "table:style-name", named, "table:content-validation-name", outline.picks(row, column).map(SheetOutline.Picks::name).orElse(null));
        if (!covered && area.isPresent()) {
            part.with("table:number-columns-spanned", String.valueOf(area.get().getLastColumn() - area.get().getFirstColumn() + 1), "table:number-rows-spanned",
                    String.valueOf(area.get().getLastRow() - area.get().getFirstRow() + 1));
        }
        if (formula != null) {
            part.with("table:formula", OpenFormula.of(formula));
        }
        value(kind == null ? "n" : kind, value, style, formula != null);
        part.close(1);
        column++;
    }

    private void value(String kind, String value, int style, boolean worked) {
        if (value == null) {
            return;
        }
        switch (kind) {
            case "s" -> text(shared.apply(Integer.parseInt(value)), worked);
            case "b" -> part.with("office:value-type", "boolean", "office:boolean-value", value.equals("1") ? "true" : "false");
            case "e" -> part.with("office:value-type", "string", "office:string-value", "").paragraphs(value);
            case "n" -> {
                if (looks.isDate(style)) {
                    LocalDate date = DateUtil.getLocalDateTime(Double.parseDouble(value)).toLocalDate();
                    part.with("office:value-type", "date", "office:date-value", date.toString());
                } else {
                    part.with("office:value-type", "float", "office:value", plain(value));
                }
            }
            default -> text(value, worked);
        }
    }

    private void text(String text, boolean worked) {
        part.with("office:value-type", "string");
        if (worked) {
            part.with("office:string-value", text);
        }
        part.paragraphs(text);
    }

    /** Without decimals that say nothing. */
    private static String plain(String number) {
        return number.endsWith(".0") ? number.substring(0, number.length() - 2) : number;
    }
}
