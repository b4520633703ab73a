package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.apache.poi.ss.util.CellReference;

/**
 * A workbook of somebody else, into which sheets and charts are put. Of its parts those change that must know of the new ones: the list of
 * sheets, the styles, which get more at their end, and the drawing of a sheet that takes a chart. All others keep their bytes. Used by one thread.
 */
final class HostWorkbook {
    /** A name that each sheet of ours has, so that drawing again finds it. */
    private static final String MADE = "made_by_gorge";
    private static final String OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
    private static final int MOST_PROPERTIES = 1 << 20;
    private static final String MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    private static final String STRICT = "http://purl.oclc.org/ooxml/spreadsheetml/main";
    private static final String DRAWING_TYPE = "application/vnd.openxmlformats-officedocument.drawing+xml";
    /** What comes after a drawing in a worksheet, and after the names and how it is worked out in a workbook. */
    private static final Set<String> AFTER_DRAWING = Set.of("drawingHF", "picture", "oleObjects", "controls", "webPublishItems", "tableParts", "extLst", "legacyDrawing", "legacyDrawingHF");
    private static final Set<String> AFTER_CALCULATION = Set.of("oleSize", "customWorkbookViews", "pivotCaches", "smartTagPr", "smartTagTypes", "webPublishing", "fileRecoveryPr", "webPublishObjects", "extLst");
    private static final Pattern SHEET = Pattern.compile("(?:'((?:[^']|'')+)'|([^'!,:()\\s]+))!");

    private final Parts parts;
    private final Place place;
    private final String workbook;

    private HostWorkbook(Parts parts, Place place) {
        this.parts = parts;
        this.place = place;
        this.workbook = parts.relations("").stream().filter(relation -> relation.is("officeDocument")).map(Parts.Relation::target).filter(parts::has).findFirst()
                .orElseThrow(() -> new BadInput(place, ProblemKind.UNREADABLE, "is no workbook that can be read: it holds no workbook"));
        XmlText.Element root = workbook().root();
        if (root.tag().contains(STRICT)) {
            throw new BadInput(place, ProblemKind.UNSUPPORTED, "is saved in the strict form of its format, which can't be drawn into; save it as an ordinary workbook");
        } else if (root.child("workbookPr").flatMap(stated -> stated.attribute("date1904")).filter(from -> from.equals("1") || from.equals("true")).isPresent()) {
            throw new BadInput(place, ProblemKind.UNSUPPORTED, "counts its dates from 1904, and what is drawn counts them from 1900; save it with the usual dates");
        } else if (!root.local().equals("workbook") || root.child("sheets").isEmpty()) {
            throw new BadInput(place, ProblemKind.UNREADABLE, "is no workbook that can be read: it has no list of sheets");
        }
    }

    /**
     * Without what was drawn into it before.
     *
     * @throws BadInput where it can't be read, or is of another kind
     */
    static HostWorkbook open(Path file) {
        Place place = Place.inFile(file.toString());
        if (!Files.isRegularFile(file) || !Files.isReadable(file)) {
            throw new BadInput(place, ProblemKind.UNREADABLE, Files.isDirectory(file) ? "is a folder; name a workbook" : Files.exists(file) ? "can't read: permission denied" : "there is no such file");
        }
        return reading(place, () -> {
            HostWorkbook host = new HostWorkbook(Parts.read(file, place), place);
            host.takeOut();
            return host;
        });
    }

    /** Something that is done with the parts of a workbook that may be damaged. */
    private interface Reading<T> {
        T read() throws IOException;
    }

    private static <T> T reading(Place place, Reading<T> reading) {
        try {
            return reading.read();
        } catch (IOException | IllegalArgumentException | IndexOutOfBoundsException | NoSuchElementException e) {
            throw new BadInput(place, ProblemKind.UNREADABLE, "is no workbook that can be drawn into: " + (e instanceof IOException io ? AtomicFiles.reason(io) : e.getMessage()));
        }
    }

    /** The program that last wrote a file, as the workbook states it; empty where it is no workbook, or states none. */
    static Optional<String> writer(Path file) {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            if (zip.getEntry("xl/workbook.xml") == null) {
                return Optional.empty();
            }
            ZipEntry stated = zip.getEntry("docProps/app.xml");
            if (stated == null) {
                return Optional.of("");
            }
            try (InputStream in = zip.getInputStream(stated)) {
                String properties = new String(in.readNBytes(MOST_PROPERTIES), StandardCharsets.UTF_8);
                return Optional.of(new XmlText(properties).root().child("Application").map(XmlText.Element::inner).orElse(""));
            }
        } catch (IOException | IllegalArgumentException | IndexOutOfBoundsException e) {
            return Optional.empty();
        }
    }

    /** What a person should know who draws into it: that a signature won't hold, that its structure is locked. */
    List<String> warnings() {
        List<String> warnings = new ArrayList<>();
        if (parts.relations("").stream().anyMatch(relation -> relation.is("origin"))) {
            warnings.add(place + ": is signed, and the signature does not hold for what is drawn; have it signed again");
        }
        Optional<XmlText.Element> protection = workbook().root().child("workbookProtection");
        if (protection.flatMap(stated -> stated.attribute("lockStructure")).filter(locked -> locked.equals("1") || locked.equals("true")).isPresent()) {
            warnings.add(place + ": its structure is locked, and sheets are added all the same; whoever locked it may not expect them");
        }
        return warnings;
    }

    private XmlText workbook() {
        return new XmlText(parts.text(workbook));
    }

    /** A sheet of the list: its name, and the part that holds its cells; empty where it is a chart alone. */
    private record Listed(String name, String part, XmlText.Element element) {
    }

    private List<Listed> sheets(XmlText.Element root) {
        Map<String, String> targets = new LinkedHashMap<>();
        parts.relations(workbook).stream().filter(relation -> relation.is("worksheet")).forEach(relation -> targets.put(relation.id(), relation.target()));
        return root.child("sheets").orElseThrow().children().stream().map(sheet -> new Listed(sheet.attribute("name").orElse(""), targets.getOrDefault(relationId(sheet), ""), sheet)).toList();
    }

    private static String relationId(XmlText.Element element) {
        Matcher id = Pattern.compile("\\s[\\w.-]+:id\\s*=\\s*[\"']([^\"']*)[\"']").matcher(element.tag());
        return id.find() ? id.group(1) : "";
    }

    List<String> sheetNames() {
        return sheets(workbook().root()).stream().map(Listed::name).toList();
    }

    List<String> definedNames() {
        return workbook().root().child("definedNames").map(names -> names.children().stream().flatMap(name -> name.attribute("name").stream()).toList()).orElse(List.of());
    }

    /** Which sheet a place is on, as the workbook writes its name. */
    private Listed sheet(String name, Place asked) {
        List<Listed> all = sheets(workbook().root());
        return all.stream().filter(sheet -> sheet.name().equalsIgnoreCase(name)).filter(sheet -> !sheet.part().isEmpty()).findFirst()
                .orElseThrow(() -> new BadInput(asked, ProblemKind.UNKNOWN_NAME, "there is no sheet '" + name + "' with cells in " + place + ". " + Nearest.hint(name, all.stream().filter(sheet -> !sheet.part().isEmpty()).map(Listed::name).toList())));
    }

    HostGrid grid(String sheet, Place asked) {
        return reading(place, () -> new HostGrid(new XmlText(parts.text(sheet(sheet, asked).part())).root()));
    }

    /**
     * The first of some lines with a cell that holds something.
     *
     * @param from   the first line, as a reader counts them, and {@code to} the last
     * @param left   the first column, from 0, and {@code right} the last
     * @return empty where all are free
     */
    OptionalInt firstFilled(String sheet, int from, int to, int left, int right) {
        return reading(place, () -> {
            int line = 0;
            for (XmlText.Element row : new XmlText(parts.text(sheet(sheet, place).part())).root().child("sheetData").map(XmlText.Element::children).orElse(List.of())) {
                line = row.attribute("r").map(Integer::parseInt).orElse(line + 1);
                int column = -1;
                for (XmlText.Element cell : line < from || line > to ? List.<XmlText.Element>of() : row.children()) {
                    column = cell.attribute("r").map(at -> (int) new CellReference(at).getCol()).orElse(column + 1);
                    if (column >= left && column <= right && !cell.children().isEmpty()) {
                        return OptionalInt.of(line);
                    }
                }
            }
            return OptionalInt.empty();
        });
    }

    /** Takes out what was drawn into it before: sheets, their names, and charts on other sheets. */
    private void takeOut() {
        XmlText text = workbook();
        XmlText.Element root = text.root();
        List<Listed> all = sheets(root);
        Set<Integer> ours = new HashSet<>();
        List<XmlText.Element> names = root.child("definedNames").map(XmlText.Element::children).orElse(List.of());
        names.stream().filter(name -> name.attribute("name").equals(Optional.of(MADE))).forEach(name -> name.attribute("localSheetId").ifPresent(at -> ours.add(Integer.parseInt(at))));
        ours.removeIf(at -> at >= all.size());
        if (!ours.isEmpty() && ours.size() < all.size()) {
            Set<String> gone = new HashSet<>();
            ours.forEach(at -> gone.add(all.get(at).name()));
            for (XmlText.Element name : names) {
                Optional<Integer> local = name.attribute("localSheetId").map(Integer::parseInt);
                if (local.isPresent() && ours.contains(local.get()) || local.isEmpty() && sheetsOf(name.inner()).stream().anyMatch(gone::contains)) {
                    text.remove(name);
                } else if (local.isPresent()) {
                    text.attribute(name, "localSheetId", String.valueOf(local.get() - ours.stream().filter(at -> at < local.get()).count()));
                }
            }
            root.child("bookViews").ifPresent(views -> views.children().forEach(view -> {
                for (String which : List.of("activeTab", "firstSheet")) {
                    view.attribute(which).map(Integer::parseInt).filter(at -> at > 0).ifPresent(at -> text.attribute(view, which, ours.contains(at) ? "0" : String.valueOf(at - ours.stream().filter(each -> each < at).count())));
                }
            }));
            ours.forEach(at -> text.remove(all.get(at).element()));
            parts.write(workbook, text.edited());
            for (int at : ours) {
                takeOut(all.get(at));
            }
        }
        sheets(workbook().root()).forEach(this::takeOutDrawings);
    }

    private static Set<String> sheetsOf(String formula) {
        Set<String> sheets = new HashSet<>();
        Matcher all = SHEET.matcher(formula.replace("&apos;", "'").replace("&amp;", "&"));
        while (all.find()) {
            sheets.add(all.group(1) == null ? all.group(2) : all.group(1).replace("''", "'"));
        }
        return sheets;
    }

    private void takeOut(Listed sheet) {
        for (Parts.Relation relation : parts.relations(sheet.part())) {
            if (relation.is("drawing")) {
                parts.relations(relation.target()).stream().filter(each -> each.is("chart")).forEach(each -> removeChart(each.target()));
                parts.remove(relation.target());
            }
        }
        parts.relations(workbook).stream().filter(relation -> relation.target().equals(sheet.part())).forEach(relation -> parts.unrelate(workbook, relation.id()));
        parts.remove(sheet.part());
    }

    /** Charts and boxes of ours on a sheet of somebody else. */
    private void takeOutDrawings(Listed sheet) {
        for (Parts.Relation relation : parts.relations(sheet.part())) {
            if (!relation.is("drawing") || !parts.has(relation.target()) || !parts.text(relation.target()).contains("\"" + HostCanvas.OURS)) {
                continue;
            }
            XmlText drawing = new XmlText(parts.text(relation.target()));
            List<XmlText.Element> ours = drawing.root().children().stream().filter(anchor -> anchor.inner().contains("name=\"" + HostCanvas.OURS)).toList();
            ours.forEach(drawing::remove);
            Set<String> ids = new HashSet<>();
            ours.forEach(anchor -> Pattern.compile(":id=\"([^\"]+)\"").matcher(anchor.inner()).results().forEach(id -> ids.add(id.group(1))));
            parts.relations(relation.target()).stream().filter(each -> each.is("chart") && ids.contains(each.id())).forEach(each -> {
                parts.unrelate(relation.target(), each.id());
                removeChart(each.target());
            });
            if (ours.size() == drawing.root().children().size() && relation.target().contains("/gorge")) {
                XmlText worksheet = new XmlText(parts.text(sheet.part())); // the drawing itself was ours
                worksheet.root().child("drawing").ifPresent(worksheet::remove);
                parts.write(sheet.part(), worksheet.edited());
                parts.unrelate(sheet.part(), relation.id());
                parts.remove(relation.target());
            } else {
                parts.write(relation.target(), drawing.edited());
            }
        }
    }

    /**
     * Puts the sheets of a workbook of ours behind the others.
     *
     * @param made    the workbook
     * @param onOther for each of its sheets that stands for a place on another, that other sheet
     */
    void putIn(byte[] made, Map<String, String> onOther) {
        reading(place, () -> {
            put(made, onOther);
            return this;
        });
    }

    private void put(byte[] made, Map<String, String> onOther) throws IOException {
        HostWorkbook source = new HostWorkbook(Parts.read(made), place);
        HostStyles styles = styles(source);
        List<String> texts = source.sharedTexts();
        List<Listed> sheets = source.sheets(source.workbook().root());
        int before = sheetNames().size();
        Map<Integer, Integer> moved = new LinkedHashMap<>();
        for (int at = 0; at < sheets.size(); at++) {
            Listed sheet = sheets.get(at);
            if (onOther.containsKey(sheet.name())) {
                putOn(sheet(onOther.get(sheet.name()), place), source, sheet);
            } else {
                moved.put(at, before + moved.size());
                add(source, sheet, styles, texts);
            }
        }
        names(source, moved);
    }

    private HostStyles styles(HostWorkbook source) {
        String theirs = source.stylesPart().orElseThrow();
        Optional<String> own = stylesPart();
        if (own.isEmpty()) {
            own = Optional.of(parts.free(folder() + "styles", ".xml"));
            parts.write(own.get(), HostStyles.PLAIN);
            parts.type(own.get(), source.parts.type(theirs).orElseThrow());
            parts.relate(workbook, OFFICE + "/styles", own.get());
        }
        HostStyles styles = new HostStyles(parts.text(own.get()), source.parts.text(theirs));
        parts.write(own.get(), styles.both());
        return styles;
    }

    private Optional<String> stylesPart() {
        return parts.relations(workbook).stream().filter(relation -> relation.is("styles")).map(Parts.Relation::target).filter(parts::has).findFirst();
    }

    private String folder() {
        return workbook.substring(0, workbook.lastIndexOf('/') + 1);
    }

    /** The texts that sheets of ours share, as what stands within each. */
    private List<String> sharedTexts() {
        return parts.relations(workbook).stream().filter(relation -> relation.is("sharedStrings")).map(Parts.Relation::target).findFirst()
                .map(part -> new XmlText(parts.text(part)).root().children().stream().map(XmlText.Element::inner).toList()).orElse(List.of());
    }

    /** A sheet of ours, with its drawing and its charts. */
    private void add(HostWorkbook source, Listed sheet, HostStyles styles, List<String> texts) {
        String part = parts.free(folder() + "worksheets/gorge", ".xml");
        parts.write(part, styles.ofSheet(source.parts.text(sheet.part()), texts));
        parts.type(part, source.parts.type(sheet.part()).orElseThrow());
        String own = new XmlText(parts.text(part)).root().child("drawing").map(HostWorkbook::relationId).orElse("");
        for (Parts.Relation relation : source.parts.relations(sheet.part())) {
            if (relation.is("drawing")) {
                String drawing = parts.free(folder() + "drawings/gorge", ".xml");
                parts.write(drawing, withCharts(source, relation.target(), drawing));
                parts.type(drawing, DRAWING_TYPE);
                String id = parts.relate(part, relation.type(), drawing);
                parts.write(part, parts.text(part).replace("r:id=\"" + own + "\"", "r:id=\"" + id + "\""));
            }
        }
        String id = parts.relate(workbook, OFFICE + "/worksheet", part);
        XmlText text = workbook();
        XmlText.Element root = text.root();
        int highest = sheets(root).stream().flatMap(each -> each.element().attribute("sheetId").stream()).mapToInt(Integer::parseInt).max().orElse(0);
        text.append(root.child("sheets").orElseThrow(), "<sheet xmlns=\"" + MAIN + "\" xmlns:r=\"" + OFFICE + "\" name=\"" + XmlText.escaped(sheet.name()) + "\" sheetId=\"" + (highest + 1) + "\" r:id=\"" + id + "\"/>");
        parts.write(workbook, text.edited());
    }

    /** A drawing whose charts are parts of this workbook now. */
    private String withCharts(HostWorkbook source, String drawing, String target) {
        String text = source.parts.text(drawing);
        for (Parts.Relation relation : source.parts.relations(drawing)) {
            if (relation.is("chart")) {
                String chart = parts.free(folder() + "charts/gorge", ".xml");
                parts.write(chart, source.parts.bytes(relation.target()));
                parts.type(chart, source.parts.type(relation.target()).orElseThrow());
                pictures(source, relation.target(), chart);
                String id = parts.relate(target, relation.type(), chart);
                text = text.replace("r:id=\"" + relation.id() + "\"", "r:id=\"new " + id + "\"");
            }
        }
        return text.replace("r:id=\"new ", "r:id=\"");
    }

    /** The pictures that fill pieces of a chart. */
    private void pictures(HostWorkbook source, String from, String chart) {
        String text = source.parts.text(from);
        for (Parts.Relation relation : source.parts.relations(from)) {
            String picture = parts.free(folder() + "media/gorge", ".png");
            parts.write(picture, source.parts.bytes(relation.target()));
            parts.type(picture, "image/png");
            String id = parts.relate(chart, relation.type(), picture);
            text = text.replace("r:embed=\"" + relation.id() + "\"", "r:embed=\"new " + id + "\"");
        }
        parts.write(chart, text.replace("r:embed=\"new ", "r:embed=\""));
    }

    /** Takes a chart of ours away, with its pictures. */
    private void removeChart(String chart) {
        parts.relations(chart).stream().filter(each -> each.is("image")).forEach(each -> parts.remove(each.target()));
        parts.remove(chart);
    }

    /** Puts what is drawn on a sheet of ours on one of theirs, beside what is drawn there. */
    private void putOn(Listed sheet, HostWorkbook source, Listed ours) {
        Optional<String> drawing = source.parts.relations(ours.part()).stream().filter(relation -> relation.is("drawing")).map(Parts.Relation::target).findFirst();
        if (drawing.isEmpty()) {
            return;
        }
        Optional<String> there = parts.relations(sheet.part()).stream().filter(relation -> relation.is("drawing")).map(Parts.Relation::target).filter(parts::has).findFirst();
        String target = there.orElseGet(() -> parts.free(folder() + "drawings/gorge", ".xml"));
        String text = withCharts(source, drawing.get(), target);
        if (there.isPresent()) {
            XmlText own = new XmlText(parts.text(target));
            String spaces = Pattern.compile("\\sxmlns:\\w+=\"[^\"]*\"").matcher(new XmlText(text).root().tag()).results().map(MatchResult::group).reduce("", String::concat);
            int[] id = {Pattern.compile("cNvPr [^>]*?\\bid=\"(\\d+)\"").matcher(parts.text(target)).results().mapToInt(match -> Integer.parseInt(match.group(1))).max().orElse(0)};
            StringBuilder more = new StringBuilder();
            for (XmlText.Element anchor : new XmlText(text).root().children()) {
                String whole = anchor.whole().replaceFirst("<" + anchor.name(), Matcher.quoteReplacement("<" + anchor.name() + spaces));
                more.append(Pattern.compile("(cNvPr [^>]*?\\bid=\")\\d+\"").matcher(whole).replaceAll(match -> match.group(1) + ++id[0] + "\""));
            }
            own.append(own.root(), more.toString());
            parts.write(target, own.edited());
            return;
        }
        parts.write(target, text);
        parts.type(target, DRAWING_TYPE);
        String id = parts.relate(sheet.part(), OFFICE + "/drawing", target);
        XmlText worksheet = new XmlText(parts.text(sheet.part()));
        XmlText.Element root = worksheet.root();
        worksheet.insert(root.children().stream().filter(child -> AFTER_DRAWING.contains(child.local())).mapToInt(XmlText.Element::start).findFirst().orElse(root.closing()),
                "<drawing xmlns=\"" + MAIN + "\" xmlns:r=\"" + OFFICE + "\" r:id=\"" + id + "\"/>");
        parts.write(sheet.part(), worksheet.edited());
    }

    /** The names of cells, each sheet's mark, and that all is worked out when it is opened. */
    private void names(HostWorkbook source, Map<Integer, Integer> moved) {
        StringBuilder more = new StringBuilder();
        source.workbook().root().child("definedNames").ifPresent(names -> names.children().forEach(name -> {
            Optional<Integer> local = name.attribute("localSheetId").map(Integer::parseInt);
            if (local.isEmpty() || moved.containsKey(local.get())) {
                XmlText one = new XmlText(name.whole());
                XmlText.Element element = one.root();
                local.ifPresent(at -> one.attribute(element, "localSheetId", String.valueOf(moved.get(at))));
                one.attribute(element, "xmlns", MAIN);
                more.append(one.edited());
            }
        }));
        moved.values().forEach(at -> more.append("<definedName xmlns=\"" + MAIN + "\" name=\"" + MADE + "\" localSheetId=\"" + at + "\" hidden=\"1\">TRUE</definedName>"));
        XmlText text = workbook();
        XmlText.Element root = text.root();
        Optional<XmlText.Element> names = root.child("definedNames");
        if (names.isPresent()) {
            text.append(names.get(), more.toString());
        } else {
            text.insert(root.child("calcPr").map(XmlText.Element::start).orElseGet(() -> before(root, AFTER_CALCULATION)), "<definedNames xmlns=\"" + MAIN + "\">" + more + "</definedNames>");
        }
        Optional<XmlText.Element> calculation = root.child("calcPr");
        if (calculation.isPresent()) {
            text.attribute(calculation.get(), "fullCalcOnLoad", "1");
        } else {
            text.insert(before(root, AFTER_CALCULATION), "<calcPr xmlns=\"" + MAIN + "\" fullCalcOnLoad=\"1\"/>");
        }
        parts.write(workbook, text.edited());
    }

    private static int before(XmlText.Element root, Set<String> later) {
        return root.children().stream().filter(child -> later.contains(child.local())).mapToInt(XmlText.Element::start).findFirst().orElse(root.closing());
    }

    void writeTo(OutputStream out) throws IOException {
        parts.writeTo(out);
    }
}
