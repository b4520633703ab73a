package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * Reads one sheet of an OpenDocument spreadsheet ({@code .ods}, ISO/IEC 26300). Formulas count by the results beside them; a
 * cell without one, or with an error, is missing, and reported.
 */
final class OpenDocumentTable {
    private static final String TABLE = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";
    private static final String OFFICE = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";
    private static final String STYLE = "urn:oasis:names:tc:opendocument:xmlns:style:1.0";
    private static final String TEXT = "urn:oasis:names:tc:opendocument:xmlns:text:1.0";
    /** Of what the formats of the standard's next version add. */
    private static final String EXTENDED = "urn:org:documentfoundation:names:experimental:calc:xmlns:calcext:1.0";
    private static final Pattern COUNT = Pattern.compile("0*[1-9][0-9]{0,9}");
    private static final int MOST_COLUMNS = Bound.TABLE_COLUMNS.count();
    private static final int MOST_ROWS = Bound.SHEET_ROWS.count();
    /** A sheet ends long before; what unpacks to more was made to fill the memory. */
    private static final long MOST_BYTES = (long) Bound.UNPACKED_BYTES.most();

    private final XMLStreamReader xml;
    private final SheetRows rows;
    private final Place place;
    private long line;

    private OpenDocumentTable(XMLStreamReader xml, SheetRows rows, Place place) {
        this.xml = xml;
        this.rows = rows;
        this.place = place;
    }

    static Table read(String name, InputFile source, Layout asked) {
        Place place = source.place();
        Path file = source.path();
        if (!Files.isRegularFile(file)) {
            throw new BadInput(place, ProblemKind.UNREADABLE, Files.isDirectory(file) ? "is a folder; name a file" : "there is no such file");
        }
        try (ZipFile archive = new ZipFile(file.toFile())) {
            ZipEntry content = archive.getEntry("content.xml");
            if (content == null) {
                throw new BadInput(place, ProblemKind.UNREADABLE, "is no spreadsheet that can be read: it has no content");
            }
            Layout layout = NamedRanges.isName(asked) ? ranges(archive, content).located(asked, place) : asked;
            SheetRows rows = new SheetRows(source, layout);
            try (InputStream in = source.watched(bounded(archive.getInputStream(content)), content.getSize())) {
                XMLStreamReader xml = reader(in);
                boolean hidden = find(xml, layout.sheet(), place, rows);
                new OpenDocumentTable(xml, rows, place).sheet();
                if (hidden) {
                    rows.hiddenSheet();
                }
            }
            return rows.table(name);
        } catch (ZipException e) {
            boolean packed = String.valueOf(e.getMessage()).contains("compression method");
            throw new BadInput(place, ProblemKind.UNREADABLE, "is no spreadsheet that can be read: " + (packed ? "it is packed in another way than OpenDocument allows; save it again"
                    : "it is no ZIP archive (" + e.getMessage() + ")"));
        } catch (XMLStreamException e) {
            throw WorkbookPackage.refused(place, "is no spreadsheet that can be read: ", e);
        } catch (IOException e) {
            throw source.unreadable(e);
        }
    }

    /** Of ranges, which stand behind all cells. */
    private static NamedRanges ranges(ZipFile archive, ZipEntry content) throws XMLStreamException, IOException {
        NamedRanges ranges = new NamedRanges();
        try (InputStream in = bounded(archive.getInputStream(content))) {
            XMLStreamReader xml = reader(in);
            while (xml.hasNext()) {
                if (xml.next() == XMLStreamReader.START_ELEMENT && TABLE.equals(xml.getNamespaceURI()) && (xml.getLocalName().equals("named-range") || xml.getLocalName().equals("database-range"))) {
                    String cells = xml.getLocalName().equals("named-range") ? "cell-range-address" : "target-range-address";
                    ranges.add(String.valueOf(xml.getAttributeValue(TABLE, "name")), String.valueOf(xml.getAttributeValue(TABLE, cells)));
                }
            }
        }
        return ranges;
    }

    /** The names of the sheets, in their order; none where the file can't be read, as reading says why. */
    static List<String> sheets(InputFile source) {
        List<String> names = new ArrayList<>();
        try (ZipFile archive = new ZipFile(source.path().toFile())) {
            ZipEntry content = archive.getEntry("content.xml");
            if (content != null) {
                try (InputStream in = bounded(archive.getInputStream(content))) {
                    XMLStreamReader xml = reader(in);
                    while (xml.hasNext()) {
                        if (xml.next() == XMLStreamReader.START_ELEMENT && xml.getLocalName().equals("table") && TABLE.equals(xml.getNamespaceURI())) {
                            names.add(String.valueOf(xml.getAttributeValue(TABLE, "name")));
                        }
                    }
                }
            }
        } catch (XMLStreamException | IOException e) {
            return List.of();
        }
        return names;
    }

    private static XMLStreamReader reader(InputStream in) throws XMLStreamException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        return factory.createXMLStreamReader(in);
    }

    private static InputStream bounded(InputStream in) {
        return new CountedStream(in, bytes -> {
            if (bytes > MOST_BYTES) {
                throw new IOException("it unpacks to more than " + MOST_BYTES + " bytes");
            }
        });
    }

    /** Goes on to the sheet of that name, or the first one; the rows are told what it is called. @return whether its style hides it */
    private static boolean find(XMLStreamReader xml, Optional<String> wanted, Place place, SheetRows rows) throws XMLStreamException {
        List<String> names = new ArrayList<>();
        Set<String> hiding = new HashSet<>();
        String style = "";
        while (xml.hasNext()) {
            int event = xml.next();
            if (event != XMLStreamReader.START_ELEMENT) {
                continue;
            } else if (xml.getLocalName().equals("style") && STYLE.equals(xml.getNamespaceURI())) {
                style = String.valueOf(xml.getAttributeValue(STYLE, "name"));
            } else if (xml.getLocalName().equals("table-properties") && "false".equals(xml.getAttributeValue(TABLE, "display"))) {
                hiding.add(style);
            } else if (xml.getLocalName().equals("table") && TABLE.equals(xml.getNamespaceURI())) {
                String name = String.valueOf(xml.getAttributeValue(TABLE, "name"));
                if (wanted.isEmpty() || wanted.get().equals(name)) {
                    rows.called(name);
                    return hiding.contains(String.valueOf(xml.getAttributeValue(TABLE, "style-name")));
                }
                names.add(name);
            }
        }
        throw new BadInput(place, ProblemKind.UNKNOWN_NAME, wanted.map(name -> "there is no sheet '" + name + "'. " + Nearest.hint(name, names)).orElse("has no sheet"));
    }

    private void sheet() throws XMLStreamException {
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamReader.END_ELEMENT && is("table")) {
                return;
            }
            if (event == XMLStreamReader.START_ELEMENT && is("table-row")) {
                row();
            }
        }
    }

    private boolean is(String name) {
        return xml.getLocalName().equals(name) && TABLE.equals(xml.getNamespaceURI());
    }

    /** How often, or how far, 1 or more; 1 by default. */
    private int number(String attribute) {
        return count(xml.getAttributeValue(TABLE, attribute), "'" + attribute + "'");
    }

    private int count(String written, String what) {
        if (written == null) {
            return 1;
        }
        if (!COUNT.matcher(written.strip()).matches()) {
            throw new BadInput(place.within("row " + (line + 1)), ProblemKind.DATA, what + " is '" + written + "', and must be a whole number from 1 to " + Integer.MAX_VALUE);
        }
        return (int) Math.min(Integer.MAX_VALUE, Long.parseLong(written.strip()));
    }

    /** Rows that are all alike are written once; the empty ones at the end of a sheet are a million. */
    private void row() throws XMLStreamException {
        int times = number("number-rows-repeated");
        if (Set.of("collapse", "filter").contains(String.valueOf(xml.getAttributeValue(TABLE, "visibility")))) {
            rows.hide((int) Math.min(MOST_ROWS, line + 1), times);
        }
        Map<Integer, Object> cells = new HashMap<>();
        int column = 0;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamReader.END_ELEMENT && is("table-row")) {
                break;
            }
            if (event == XMLStreamReader.START_ELEMENT && (is("table-cell") || is("covered-table-cell"))) {
                int wide = number("number-columns-repeated");
                int across = number("number-columns-spanned");
                int down = number("number-rows-spanned");
                if (across > 1 || down > 1) {
                    rows.merge((int) line, (int) Math.min(MOST_ROWS, line + down - 1), column, (int) Math.min(MOST_COLUMNS, (long) column + across - 1));
                }
                Optional<Object> cell = cell(column);
                for (int i = 0; cell.isPresent() && i < wide && column + i < MOST_COLUMNS; i++) {
                    cells.put(column + i, cell.get());
                }
                column = (int) Math.min(MOST_COLUMNS, (long) column + wide);
            }
        }
        if (!cells.isEmpty()) {
            if (line >= MOST_ROWS) {
                throw new BadInput(place.within("row " + (line + 1)), ProblemKind.TOO_LARGE, "lies below the " + MOST_ROWS + " rows that are read");
            }
            rows.add((int) line + 1, times, cells);
        }
        line += times;
    }

    private Optional<Object> cell(int column) throws XMLStreamException {
        boolean formula = xml.getAttributeValue(TABLE, "formula") != null;
        boolean marked = "error".equals(xml.getAttributeValue(EXTENDED, "value-type"));
        String time = xml.getAttributeValue(OFFICE, "time-value");
        String currency = xml.getAttributeValue(OFFICE, "currency");
        String type = xml.getAttributeValue(OFFICE, "value-type");
        String value = xml.getAttributeValue(OFFICE, "value");
        String date = xml.getAttributeValue(OFFICE, "date-value");
        String truth = xml.getAttributeValue(OFFICE, "boolean-value");
        String text = text();
        boolean error = marked || formula && SheetCell.isError(text);
        if (error || type == null && formula) {
            return Optional.of(new SheetCell.Unreadable(error && !text.isBlank() ? text : "a formula without a result"));
        } else if (type == null) {
            return Optional.empty();
        }
        if (type.equals("percentage") || currency != null) {
            rows.notes().unit((int) line + 1, column, currency == null ? "%" : currency);
        }
        if (date != null) {
            CellReader.hours(List.of(), date).stream().filter(hours -> hours > 0).forEach(hours -> rows.notes().time((int) line + 1, column, hours));
        }
        return switch (type) {
            case "float", "percentage", "currency" -> Optional.ofNullable(value).map(this::figure);
            case "date" -> Optional.ofNullable(date).map(OpenDocumentTable::day);
            case "time" -> Optional.ofNullable(time).map(this::time);
            case "boolean" -> Optional.of(Boolean.valueOf(truth));
            default -> text.isBlank() ? Optional.empty() : Optional.of(text);
        };
    }

    private Object figure(String written) {
        return Numbers.parse(written).stream().boxed().findFirst().orElseThrow(() -> new BadInput(place.within("row " + (line + 1)), ProblemKind.DATA, "a cell holds '" + written + "', which is no number"));
    }

    /** A duration as ISO 8601 writes it. */
    private Object time(String written) {
        try {
            return new SheetCell.Time(Duration.parse(written.strip()).toMillis() / (double) Duration.ofDays(1).toMillis());
        } catch (DateTimeParseException | ArithmeticException e) {
            throw new BadInput(place.within("row " + (line + 1)), ProblemKind.DATA, "a cell holds the time '" + written + "', which is none", e);
        }
    }

    private static Object day(String written) {
        try {
            return LocalDate.parse(written.substring(0, Math.min(10, written.length())));
        } catch (DateTimeParseException e) {
            return written;
        }
    }

    /** The paragraphs of a cell, without what was noted on it; the reader stands at the cell's end afterwards. */
    private String text() throws XMLStreamException {
        StringBuilder text = new StringBuilder();
        int paragraphs = 0;
        int depth = 1;
        int noted = 0;
        while (depth > 0 && xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamReader.START_ELEMENT) {
                depth++;
                noted += xml.getLocalName().equals("annotation") || noted > 0 ? 1 : 0;
                boolean own = noted == 0 && TEXT.equals(xml.getNamespaceURI());
                if (own && xml.getLocalName().equals("p") && paragraphs++ > 0) {
                    text.append('\n');
                } else if (own && xml.getLocalName().equals("s")) {
                    String count = xml.getAttributeValue(TEXT, "c");
                    text.append(" ".repeat(Math.min(1_000, count(count, "a number of blanks"))));
                }
            } else if (event == XMLStreamReader.END_ELEMENT) {
                depth--;
                noted -= noted > 0 ? 1 : 0;
            } else if (event == XMLStreamReader.CHARACTERS && noted == 0 && depth > 1) {
                text.append(xml.getText());
            }
        }
        return text.toString();
    }
}
