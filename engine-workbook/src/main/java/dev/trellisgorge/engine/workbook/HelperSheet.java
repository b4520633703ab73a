package dev.trellisgorge.engine.workbook;

import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.text;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.InWords;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.Derived;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.CellLook;
import dev.trellisgorge.sheet.Sheet;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;

/**
 * The sheet of one tile's helper columns, left to right: the category, the series in drawing order, what they are worked out
 * from, and the proof; then, folded away, what serves only labels and the drawing, and the slices of a ring below each other.
 * Every cell is a formula over the raw sheet, with the value that the formula gives written beside it.
 */
final class HelperSheet {
    private static final int STATEMENT = 24;
    private static final int LONGEST_MEANING = 160;
    private static final int MOST_DECIMALS = 3;
    private static final int LOOKED_AT = 1000;
    private static final String PROOF = "proof ";
    /** Stands between the name of a row and a label after it. */
    private static final String BETWEEN = " \u00b7 ";
    static final String UNNAMED = "\u00a0";

    private final ComputedColumns data;
    private final Plan plan;
    private final List<Series> series;
    private final Optional<Label> note;
    /** Whether a chart can take labels from cells. */
    private final boolean textsFollow;
    private final String name;
    private final SourceRows rows;
    private final SheetNames names;
    private final List<SheetColumn> columns = new ArrayList<>();
    private final SheetLayout layout;
    private final Computation computation;
    private final Map<Label, Map<String, Integer>> labelAt = new LinkedHashMap<>();
    private final List<Integer> trackAt = new ArrayList<>();
    private final List<List<Series>> tracks;
    private final int categoryAt;
    private final int proofsFrom;
    private final int foldedFrom;
    private final OptionalInt zeroAt;
    private boolean cellsText;
    private final String title;

    /**
     * The sheet under a chart: its parts share one helper table.
     *
     * @param textsFollow whether a chart can take labels from cells; where not, such labels stand after the names of the rows
     */
    HelperSheet(List<PlainChart> parts, String name, SourceRows rows, SheetNames names, boolean textsFollow) {
        this(title(parts.get(0)), parts.get(parts.size() - 1).data(), parts.stream().flatMap(part -> part.series().stream()).toList(), parts.get(0).note(),
                parts.get(0).drawing() instanceof Ring ring ? ring : null, name, rows, names, textsFollow || parts.get(0).panels().isEmpty());
    }

    HelperSheet(Tile.OfFigure figure, String name, SourceRows rows, SheetNames names) {
        this(figure.title().isEmpty() ? figure.name() : figure.title(), figure.data(), List.of(), Optional.empty(), null, name, rows, names, true);
    }

    private static String title(PlainChart chart) {
        return chart.title().isEmpty() ? chart.name() : chart.title();
    }

    private HelperSheet(String title, ComputedColumns data, List<Series> series, Optional<Label> note, Ring ring, String name, SourceRows rows, SheetNames names, boolean textsFollow) {
        this.title = title;
        this.data = data;
        this.plan = data.plan();
        this.series = ring == null ? series : new ArrayList<>(series);
        if (ring != null) {
            ring.centre().ifPresent(this.series::add);
        }
        this.note = note;
        this.textsFollow = textsFollow;
        this.tracks = ring == null ? List.of() : ring.tracks();
        this.name = name;
        this.rows = rows;
        this.names = names;
        this.layout = new SheetLayout(rows, data.settings(), formulas(), name, names,
                rows.there(name).map(there -> plan.category().isPresent() ? "$A" + RowFormula.HERE + "<>\"\"" : there));
        this.computation = new Computation(layout, columns, data::evaluate, this::style);
        category();
        List<String> wanted = new ArrayList<>(plan.series());
        series.stream().filter(Series::inLegend).map(Series::column).forEach(wanted::add);
        IntStream.range(0, plan.identities().size()).forEach(at -> wanted.add(PROOF + at));
        // What is drawn under a name, printed or proved, and all that this needs.
        Set<String> main = computation.reached(wanted);
        List<Derived> all = computed();
        all.stream().filter(column -> main.contains(column.name())).forEach(this::helper);
        computation.beside(main::contains);
        added();
        this.proofsFrom = columns.size();
        proofs();
        this.foldedFrom = columns.size();
        all.stream().filter(column -> !main.contains(column.name())).forEach(this::helper);
        computation.beside(column -> !main.contains(column));
        labels();
        this.categoryAt = notedCategory();
        this.zeroAt = series.isEmpty() || ring != null ? OptionalInt.empty() : OptionalInt.of(scaleFromZero());
        slices();
    }

    /** The series first, in their order, as they are printed; then all other columns, but for those that only say how labels are written. */
    private List<Derived> computed() {
        Set<String> wording = plan.wording();
        List<Derived> all = new ArrayList<>(plan.series().stream().map(plan::column).toList());
        plan.columns().stream().filter(column -> column.use() != Derived.Use.SERIES && !wording.contains(column.name())).forEach(all::add);
        return all;
    }

    /** What is computed on the sheet, by name: the plan's columns and its identities. */
    private Map<String, Formula> formulas() {
        Set<String> wording = plan.wording();
        Map<String, Formula> formulas = new LinkedHashMap<>();
        plan.columns().stream().filter(column -> !wording.contains(column.name())).forEach(column -> formulas.put(column.name(), column.formula()));
        for (int i = 0; i < plan.identities().size(); i++) {
            formulas.put(PROOF + i, choose(plan.identities().get(i).holdsOrNeedNot(), text(SheetHead.OK), text(SheetHead.FAILS)));
        }
        return formulas;
    }

    private int add(SheetColumn column) {
        columns.add(column);
        return columns.size() - 1;
    }

    private int add(String name, String meaning, int width, SheetColumn.Filling cells) {
        return add(new SheetColumn(name, meaning, width, cells));
    }

    private void category() {
        Column category = data.category();
        boolean inTable = plan.category().isPresent();
        RowFormula there = inTable ? new RowFormula(rows.there(name).map(is -> "IF(" + is + "," + rows.cell(category.name(), name) + ",\"\")").orElseGet(() -> rows.cell(category.name(), name))) : null;
        add(category.name(), inTable ? "the rows' names, from the sheet " + rows.sheet() : "the number of the row", (int) Styles.width(category), (line, column, row) -> {
            Cell cell = line.cell(column);
            if (inTable && (row >= data.rowCount() || !rows.isAdded(row))) {
                cell.formula(there.at(SheetLayout.line(row), rows.rawLine(row)));
            }
            if (row < data.rowCount()) {
                value(cell, category, row);
            } else {
                cell.value("");
            }
            if (category.kind() == Kind.DATE) {
                cell.look(Styles.date());
            }
        });
    }

    private void helper(Derived column) {
        layout.column(column.name(), columns.size());
        Column cells = data.column(column.name());
        String shown = series.stream().filter(s -> s.column().equals(column.name())).map(Series::name).findFirst().orElse("");
        boolean level = !shown.isEmpty() && cells.kind() == Kind.NUMBER && cells.size() > 0 && (column.formula() instanceof Leaf.Setting || column.formula() instanceof Leaf.Literal);
        Format written = level ? levelFormat(cells) : null;
        Optional<String> live = level && column.formula() instanceof Leaf.Setting setting
                ? Optional.of("\"" + shown.replace("\"", "\"\"") + " \"&" + NumberFormats.text(names.defined(setting.name()), written)) : Optional.empty();
        add(new SheetColumn(column.name(), level ? shown + " " + written.write(cells.number(0)) : shown, live, meaning(column), Computation.WIDTH,
                computation.cells(column.name(), cells)));
    }

    /** In the plan's own columns where that is short, else by what stands beside them. */
    private String meaning(Derived column) {
        String whole = InWords.of(column.formula());
        return whole.length() <= LONGEST_MEANING ? whole : InWords.of(computation.named(computation.staged(column.name())));
    }

    /** As the labels on a column write its figures, else with the decimals that they have. */
    private Optional<CellLook> style(Column cells) {
        if (cells.kind() == Kind.DATE) {
            return Optional.of(Styles.date());
        } else if (cells.kind() != Kind.NUMBER) {
            return Optional.empty();
        }
        Optional<Format> labelled = series.stream().filter(s -> s.column().equals(cells.name())).flatMap(s -> s.label().stream()).filter(label -> label.column().equals(cells.name())).map(Label::format).findFirst();
        return Optional.of(Styles.figure(labelled.orElseGet(() -> Format.of(Math.max(0, Math.min(MOST_DECIMALS, places(cells)))))));
    }

    /** The decimals of a column's figures; where there is none yet, of those that it may show one day. */
    private int places(Column cells) {
        OptionalInt own = IntStream.range(0, Math.min(LOOKED_AT, cells.size())).filter(cells::isPresent).map(row -> BigDecimal.valueOf(cells.number(row)).stripTrailingZeros().scale()).max();
        Set<String> read = plan.columns().stream().filter(column -> own.isEmpty() && column.name().equals(cells.name())).flatMap(column -> ColumnReferences.computed(column.formula()).stream()).collect(Collectors.toSet());
        return own.orElseGet(() -> read.stream().map(data::column).filter(column -> column.kind() == Kind.NUMBER).mapToInt(this::places).max().orElse(0));
    }

    /** As the chart writes its figures, or as the level itself needs. */
    private Format levelFormat(Column level) {
        return series.stream().flatMap(s -> s.label().stream()).map(Label::format).findFirst().orElseGet(() -> Format.of(decimals(level)));
    }

    /** The decimals that show a level, which is the same on every row. */
    private int decimals(Column level) {
        return (int) data.evaluate(Format.decimals(List.of(Formulas.number(level.number(0))))).number(0);
    }

    /** The category with its note, and the labels that a chart can't take from cells, where it has some. */
    private int notedCategory() {
        List<Series> after = series.stream().filter(labelled -> labelled.label().isPresent() && !isLabelled(labelled)).toList();
        StringBuilder whole = new StringBuilder(plan.nameColumn().map(layout::cell).orElse("A" + RowFormula.HERE));
        if (note.isEmpty() && after.isEmpty()) {
            return plan.nameColumn().map(layout::at).orElse(0);
        }
        note.ifPresent(label -> {
            String text = layout.cell(label.column());
            whole.append("&IFERROR(\" (\"&").append(data.column(label.column()).kind() == Kind.TEXT ? text : NumberFormats.text(text, label.format())).append("&\")\",\"\")");
        });
        for (Series labelled : after) {
            Label label = labelled.label().orElseThrow();
            String cell = "$" + CellReference.convertNumToColString(labelAt.get(label).get(labelled.column())) + RowFormula.HERE;
            boolean words = data.column(label.column()).kind() == Kind.TEXT || NumberFormats.isText(label.format());
            whole.append("&IF(").append(cell).append("=\"\",\"\",").append("\"" + BETWEEN + "\"").append("&").append(words ? cell : NumberFormats.text(cell, label.format())).append(")");
        }
        RowFormula formula = new RowFormula(whole.toString());
        return add(after.isEmpty() ? "category with its note" : "category with its labels", "what stands along the base of the chart", STATEMENT, (line, column, row) -> {
            Cell cell = line.cell(column);
            cell.formula(formula.at(SheetLayout.line(row), 0));
            cell.value(row < data.rowCount() ? categoryText(row) : "");
        });
    }

    /** What stands along the base for a row. */
    String categoryText(int row) {
        String after = note.map(label -> {
            Column cells = data.column(label.column());
            return cells.kind() == Kind.TEXT ? cells.written(row) : label.format().write(cells.number(row));
        }).orElse("");
        StringBuilder text = new StringBuilder(plan.nameColumn().map(data::column).orElseGet(data::category).written(row)).append(after.isEmpty() ? "" : " (" + after + ")");
        for (Series labelled : series) {
            Label label = labelled.label().orElse(null);
            if (label != null && !isLabelled(labelled) && data.column(labelled.column()).isPresent(row) && data.column(label.column()).isPresent(row)) {
                text.append(BETWEEN).append(data.column(label.words()).written(row));
            }
        }
        return text.toString();
    }

    /** Whether a chart shows a series' label beside its bars; else it stands after the names of the rows. */
    boolean isLabelled(Series labelled) {
        return labelled.label().filter(label -> textsFollow || new LabelOfLength(plan, labelled, label).says().ofLength()).isPresent();
    }

    /** The figure beside each bar, an empty text where there is none. */
    private void labels() {
        for (Series labelled : series) {
            labelled.label().ifPresent(label -> labelAt.computeIfAbsent(label, l -> new LinkedHashMap<>()).computeIfAbsent(labelled.column(),
                    column -> label(column, label)));
        }
    }

    private int label(String of, Label label) {
        Column figures = data.column(label.column());
        Column drawn = data.column(of);
        boolean words = figures.kind() == Kind.TEXT;
        boolean text = words || NumberFormats.isText(label.format());
        String figure = layout.cell(label.column());
        String rounded = words ? figure : text ? NumberFormats.text(figure, label.format()) : NumberFormats.rounded(figure, label.format());
        RowFormula formula = new RowFormula("IF(ISERROR(" + layout.cell(of) + "),\"\",IFERROR(" + rounded + ",\"\"))");
        boolean taken = series.stream().filter(s -> s.column().equals(of)).anyMatch(s -> !new LabelOfLength(plan, s, label).says().ofLength());
        cellsText |= taken && textsFollow;
        return add("words beside " + of, "what the labels on " + of + " say" + (taken && textsFollow ? "; the chart takes them from here, as they are not the length of a bar" : ""), Computation.WIDTH, (line, column, row) -> {
            Cell cell = line.cell(column);
            cell.formula(formula.at(SheetLayout.line(row), 0));
            if (row >= data.rowCount() || !drawn.isPresent(row) || !figures.isPresent(row)) {
                cell.value("");
            } else if (text && !words) {
                cell.value(label.format().write(figures.number(row)));
            } else if (!words && figures.kind() == Kind.NUMBER) {
                cell.value(NumberFormats.rounded(figures.number(row), label.format()));
            } else {
                value(cell, figures, row);
            }
            if (!text) {
                cell.look(Styles.figure(label.format()));
            }
        });
    }

    private int scaleFromZero() {
        return add(new SheetColumn("scale from", UNNAMED, Optional.empty(), "a point that the scale takes in, so that bars begin at 0 however close their figures are", Computation.WIDTH, (line, column, row) -> {
            if (row == 0) {
                line.cell(column).value(0);
            }
        }));
    }

    /** The cell over them, with a name that isn't seen: a series without one is named by its column in some programs. */
    String zeroTitle() {
        return new CellReference(name, SheetLayout.SHOWN_AS - 1, zeroAt.getAsInt(), true, true).formatAsString();
    }

    /** Cells of which the first holds 0, and the others nothing; empty where there are no bars. */
    Optional<String> zero() {
        return zeroAt.isEmpty() ? Optional.empty() : Optional.of(range(zeroAt.getAsInt()));
    }

    /** The figures of rows that are on no raw sheet. */
    private void added() {
        if (IntStream.range(0, data.rowCount()).noneMatch(rows::isAdded)) {
            return;
        }
        Set<String> read = new LinkedHashSet<>();
        formulas().values().forEach(formula -> read.addAll(ColumnReferences.columns(formula)));
        AddedFigures figures = new AddedFigures(data, rows);
        for (String input : read) {
            Column cells = data.rows().column(input);
            layout.added(input, add(input + " of added rows", input + " on rows that are not on the sheet " + rows.sheet(), Computation.WIDTH, (line, column, row) -> {
                if (rows.isAdded(row) && cells.isPresent(row)) {
                    Cell cell = line.cell(column);
                    Optional<String> sum = figures.sum(input, row);
                    sum.ifPresent(cell::formula);
                    value(cell, cells, row);
                    if (sum.isEmpty()) {
                        cell.look(cells.kind() == Kind.DATE ? Styles.inputDate() : Styles.input());
                    }
                }
            }));
        }
    }

    private void proofs() {
        for (int i = 0; i < plan.identities().size(); i++) {
            Formula formula = computation.staged(PROOF + i);
            Column cells = data.evaluate(plan.identities().get(i).holdsOrNeedNot());
            SheetLayout.RowFormulas variants = layout.formulas(columns.size(), "\"" + SheetHead.OK + "\"", writer -> writer.write(formula));
            add(plan.identities().get(i).statement(), "OK where it holds", STATEMENT, (line, column, row) -> {
                Cell cell = line.cell(column);
                cell.formula(variants.at(row));
                cell.value(row >= cells.size() || cells.number(row) == 1 ? SheetHead.OK : SheetHead.FAILS);
            });
        }
    }

    /** For each identity the first row on which it fails. */
    private List<Optional<Integer>> failing() {
        return plan.identities().stream().map(identity -> {
            Column holds = data.evaluate(identity.holdsOrNeedNot());
            return IntStream.range(0, holds.size()).filter(row -> holds.number(row) != 1).boxed().findFirst();
        }).toList();
    }

    /** A ring's slices below each other, as its chart reads them. */
    private void slices() {
        for (List<Series> track : tracks) {
            trackAt.add(add("slice", "the pieces of the ring, from the top", Computation.WIDTH, (line, column, row) -> {
                if (row < track.size()) {
                    line.cell(column).value(track.get(row).name());
                }
            }));
            add("size", "how large each is", Computation.WIDTH, (line, column, row) -> {
                if (row < track.size() && data.rowCount() > 0) {
                    Cell cell = line.cell(column);
                    cell.formula("IFERROR($" + CellReference.convertNumToColString(layout.at(track.get(row).column())) + "$" + SheetLayout.FIRST + ",0)");
                    cell.value(size(track.get(row)));
                }
            });
        }
    }

    private double size(Series slice) {
        Column cells = data.column(slice.column());
        return cells.isPresent(0) ? cells.number(0) : 0;
    }

    private static void value(Cell cell, Column values, int row) {
        Computation.value(cell, values, row, false);
    }

    /** How many lines there are for rows. */
    int lines() {
        return rows.lines();
    }

    void describe(Sheet sheet) {
        sheet.widths(columns.stream().map(column -> (double) column.width()).toList(), foldedFrom, columns.size());
        SheetHead.mute(sheet, rows.lines(), columns.size());
        String of = "Formulas over the sheet " + rows.sheet() + ", a line for each bar: first the series that are drawn, then what they are worked out from"
                + (plan.identities().isEmpty() ? "" : ", then the proof that they add back") + (foldedFrom == columns.size() ? "." : "; what serves only labels and the drawing is folded away at the right.");
        new SheetHead(sheet, columns).write(title, plan.titleColumn().filter(column -> data.rowCount() > 0).map(column -> cellOf(column, 0)), of, plan.identities().isEmpty() ? null : new CellRangeAddress(0, 0, proofsFrom, proofsFrom + plan.identities().size() - 1), rows.lines(), failing());
        int longest = tracks.stream().mapToInt(List::size).max().orElse(0);
        sheet.generate(SheetLayout.FIRST - 1, Math.max(rows.lines(), longest), line -> {
            int row = line.at() - SheetLayout.FIRST + 1;
            for (int i = row < rows.lines() ? 0 : trackAt.get(0); i < columns.size(); i++) {
                columns.get(i).cells().fill(line, i, row);
            }
        });
    }

    /** The cell over a series' cells, which names it. */
    String titleOf(Series of) {
        return new CellReference(name, SheetLayout.SHOWN_AS - 1, layout.at(of.column()), true, true).formatAsString();
    }

    /** What stands in that cell. */
    String titleText(Series of) {
        return columns.get(layout.at(of.column())).shown();
    }

    /** The names along the base, with their notes. */
    String categories() {
        return range(categoryAt);
    }

    String valuesOf(Series of) {
        return range(layout.at(of.column()));
    }

    /** The figures or texts beside a series' bars. */
    String labelsOf(Series of) {
        return range(labelAt.get(of.label().orElseThrow()).get(of.column()));
    }

    /** The cell of a row's category, series or label, for formulas on other sheets. */
    String categoryCell(int row) {
        return cell(categoryAt, row);
    }

    String cellOf(Series of, int row) {
        return cell(layout.at(of.column()), row);
    }

    String labelCell(Series of, int row) {
        return cell(labelAt.get(of.label().orElseThrow()).get(of.column()), row);
    }

    String cellOf(String helper, int row) {
        return cell(layout.at(helper), row);
    }

    private String cell(int column, int row) {
        return new CellReference(name, SheetLayout.line(row) - 1, column, true, true).formatAsString();
    }

    String sliceNames(int track) {
        return range(trackAt.get(track), trackAt.get(track), tracks.get(track).size());
    }

    String sliceSizes(int track) {
        return range(trackAt.get(track) + 1, trackAt.get(track) + 1, tracks.get(track).size());
    }

    /** The cell that says whether all identities hold; empty where there are none. */
    Optional<String> proofCell() {
        return plan.identities().isEmpty() || data.rowCount() == 0 ? Optional.empty() : Optional.of(new CellReference(name, SheetLayout.PROOF - 1, 1, true, true).formatAsString());
    }

    /** Whether they do. */
    boolean isProved() {
        return failing().stream().noneMatch(Optional::isPresent);
    }

    /** Whether labels of the chart are texts of cells, which not every program follows. */
    boolean hasLabelsFromCells() {
        return cellsText;
    }

    ComputedColumns data() {
        return data;
    }

    private String range(int column) {
        return range(column, column, rows.lines());
    }

    private String range(int firstColumn, int lastColumn, int rows) {
        return new CellRangeAddress(SheetLayout.FIRST - 1, SheetLayout.line(Math.max(1, rows) - 1) - 1, firstColumn, lastColumn).formatAsString(name, true);
    }
}
