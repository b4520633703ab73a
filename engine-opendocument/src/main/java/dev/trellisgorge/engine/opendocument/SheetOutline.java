package dev.trellisgorge.engine.opendocument;

import java.io.InputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.util.XMLHelper;

/** What is said of a sheet's cells before and after them: how large they are, what is merged, coloured by rules or picked from lists, and how it is seen and printed. */
final class SheetOutline {
    /** Of a sheet whose columns and rows say nothing else: 64 pixels, and points. */
    private static final double COLUMN = 48;
    private static final double CHARACTER = 5.25;
    static final double ROW = 15;

    /**
     * Columns of one width.
     *
     * @param first from 0
     * @param width in points
     */
    record Columns(int first, int last, double width, boolean folded) {
    }

    /**
     * A rule over cells.
     *
     * @param looks which of the book's looks for rules it gives
     */
    record Rule(String formula, int looks) {
    }

    /**
     * An area with rules over its cells.
     *
     * @param base the cell that their formulas are written for
     */
    record RuledArea(CellRangeAddress cells, String base, List<Rule> rules) {
    }

    /**
     * A list that a cell's value is picked from.
     *
     * @param from the formula of its cells
     */
    record Picks(String name, CellRangeAddress cells, String from, String title, String error) {
    }

    private final String name;
    private final String picksNamed;
    private final List<Columns> columns = new ArrayList<>();
    private final Map<Integer, Double> heights = new TreeMap<>();
    private final Map<Long, CellRangeAddress> merged = new LinkedHashMap<>();
    private final Map<String, List<Rule>> rules = new LinkedHashMap<>();
    private final List<RuledArea> ruledAreas = new ArrayList<>();
    private final List<Picks> picks = new ArrayList<>();
    private final TreeSet<Integer> styles = new TreeSet<>();
    private int columnsInSight;
    private int rowsInSight;
    private boolean lined = true;
    private boolean fits;
    private boolean centred;
    private int pagesDown = 1;
    private int lastColumn;
    private Optional<String> drawing = Optional.empty();

    /** @param number which of the sheets it is */
    private SheetOutline(String name, int number) {
        this.name = name;
        this.picksNamed = "picks" + number + "_";
    }

    /** Reads a sheet's part. */
    static SheetOutline read(String name, int number, InputStream part) throws XMLStreamException {
        SheetOutline outline = new SheetOutline(name, number);
        XMLStreamReader xml = XMLHelper.newXMLInputFactory().createXMLStreamReader(part);
        while (xml.hasNext()) {
            if (xml.next() == XMLStreamConstants.START_ELEMENT) {
                outline.take(xml);
            }
        }
        xml.close();
        outline.rules.forEach((cells, over) -> {
            for (String area : cells.split(" ")) {
                CellRangeAddress at = CellRangeAddress.valueOf(area);
                outline.ruledAreas.add(new RuledArea(at, OpenFormula.quoted(name).substring(1) + "." + area.split(":")[0], over));
            }
        });
        return outline;
    }

    private void take(XMLStreamReader xml) throws XMLStreamException {
        switch (xml.getLocalName()) {
            case "pageSetUpPr" -> fits = is(xml, "fitToPage");
            case "sheetView" -> lined = xml.getAttributeValue(null, "showGridLines") == null || is(xml, "showGridLines");
            case "pane" -> {
                columnsInSight = number(xml, "xSplit", 0);
                rowsInSight = number(xml, "ySplit", 0);
            }
            case "col" -> columns.add(new Columns(number(xml, "min", 1) - 1, number(xml, "max", 1) - 1,
                    xml.getAttributeValue(null, "width") == null ? COLUMN : Double.parseDouble(xml.getAttributeValue(null, "width")) * CHARACTER, is(xml, "hidden")));
            case "row" -> {
                if (xml.getAttributeValue(null, "ht") != null) {
                    heights.put(number(xml, "r", 1) - 1, Double.parseDouble(xml.getAttributeValue(null, "ht")));
                }
            }
            case "c" -> {
                styles.add(number(xml, "s", 0));
                lastColumn = Math.max(lastColumn, Positions.column(xml.getAttributeValue(null, "r")));
            }
            case "mergeCell" -> {
                CellRangeAddress area = CellRangeAddress.valueOf(xml.getAttributeValue(null, "ref"));
                for (int row = area.getFirstRow(); row <= area.getLastRow(); row++) {
                    for (int column = area.getFirstColumn(); column <= area.getLastColumn(); column++) {
                        merged.put(Positions.key(row, column), area);
                    }
                }
                lastColumn = Math.max(lastColumn, area.getLastColumn());
            }
            case "conditionalFormatting" -> rules(xml);
            case "dataValidation" -> picks(xml);
            case "printOptions" -> centred = is(xml, "horizontalCentered");
            case "pageSetup" -> pagesDown = number(xml, "fitToHeight", 1);
            case "drawing" -> drawing = Optional.of(xml.getAttributeValue("http://schemas.openxmlformats.org/officeDocument/2006/relationships", "id"));
            default -> { }
        }
    }

    private void rules(XMLStreamReader xml) throws XMLStreamException {
        List<Rule> over = rules.computeIfAbsent(xml.getAttributeValue(null, "sqref"), cells -> new ArrayList<>());
        int looks = 0;
        while (xml.next() != XMLStreamConstants.END_ELEMENT || !xml.getLocalName().equals("conditionalFormatting")) {
            if (xml.isStartElement() && xml.getLocalName().equals("cfRule")) {
                looks = number(xml, "dxfId", 0);
            } else if (xml.isStartElement() && xml.getLocalName().equals("formula")) {
                over.add(new Rule(xml.getElementText(), looks));
            }
        }
    }

    private void picks(XMLStreamReader xml) throws XMLStreamException {
        CellRangeAddress cells = CellRangeAddress.valueOf(xml.getAttributeValue(null, "sqref"));
        String title = xml.getAttributeValue(null, "errorTitle");
        String error = xml.getAttributeValue(null, "error");
        while (xml.next() != XMLStreamConstants.END_ELEMENT || !xml.getLocalName().equals("dataValidation")) {
            if (xml.isStartElement() && xml.getLocalName().equals("formula1")) {
                picks.add(new Picks(picksNamed + picks.size(), cells, xml.getElementText(), title, error));
            }
        }
    }

    private static boolean is(XMLStreamReader xml, String attribute) {
        String value = xml.getAttributeValue(null, attribute);
        return "true".equals(value) || "1".equals(value);
    }

    private static int number(XMLStreamReader xml, String attribute, int absent) {
        String value = xml.getAttributeValue(null, attribute);
        return value == null ? absent : (int) Double.parseDouble(value);
    }

    String name() {
        return name;
    }

    /** From the left, without gaps, at least as many as hold cells. */
    List<Columns> columns() {
        List<Columns> all = new ArrayList<>();
        int next = 0;
        for (Columns some : columns) {
            if (some.first() > next) {
                all.add(new Columns(next, some.first() - 1, COLUMN, false));
            }
            all.add(some);
            next = some.last() + 1;
        }
        if (next <= lastColumn) {
            all.add(new Columns(next, lastColumn, COLUMN, false));
        }
        return all;
    }

    /** The height of a row that states one, in points. */
    Optional<Double> height(int row) {
        return Optional.ofNullable(heights.get(row));
    }

    Map<Integer, Double> heights() {
        return heights;
    }

    /** How far a column's left edge is from the sheet's, in points. */
    double left(int column) {
        double left = 0;
        int next = 0;
        for (Columns some : columns()) {
            int taken = Math.max(0, Math.min(column, some.last() + 1) - some.first());
            left += taken * some.width();
            next = some.last() + 1;
        }
        return left + Math.max(0, column - next) * COLUMN;
    }

    /** How far a row's upper edge is from the sheet's, in points. */
    double top(int row) {
        double top = 0;
        for (int above = 0; above < row; above++) {
            top += heights.getOrDefault(above, ROW);
        }
        return top;
    }

    /** The area that a cell is merged into. */
    Optional<CellRangeAddress> merged(int row, int column) {
        return merged.isEmpty() ? Optional.empty() : Optional.ofNullable(merged.get(Positions.key(row, column)));
    }

    Optional<RuledArea> ruled(int row, int column) {
        return ruledAreas.stream().filter(area -> area.cells().isInRange(row, column)).findFirst();
    }

    List<RuledArea> ruledAreas() {
        return ruledAreas;
    }

    List<Picks> picks() {
        return picks;
    }

    Optional<Picks> picks(int row, int column) {
        return picks.stream().filter(each -> each.cells().isInRange(row, column)).findFirst();
    }

    /** The styles that its cells have. */
    TreeSet<Integer> styles() {
        return styles;
    }

    int columnsInSight() {
        return columnsInSight;
    }

    int rowsInSight() {
        return rowsInSight;
    }

    /** Whether lines between its cells are seen. */
    boolean isLined() {
        return lined;
    }

    /** How it is printed. */
    Printed printed() {
        return fits && pagesDown == 1 ? centred ? Printed.ON_ONE_PAGE : Printed.ONE_PAGE_WIDE : fits ? Printed.ONE_PAGE_WIDE : Printed.AS_IT_COMES;
    }

    /** The relationship of its drawing. */
    Optional<String> drawing() {
        return drawing;
    }
}
