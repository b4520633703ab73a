package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Reads;
import dev.trellisgorge.formula.SheetFormula;
import dev.trellisgorge.formula.Stages.StageColumn;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.plan.Cells;
import dev.trellisgorge.plan.Derived;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.FormulaError;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;

/**
 * The sheet of one tile's helper columns, left to right: the category, the series in drawing order, the working columns,
 * what others are computed beside, the texts of labels, the figures of rows that were added, and one column of TRUE or FALSE
 * for each identity; the slices of a ring stand below each other at the right. Every cell is a formula over the raw sheet,
 * with the value that the formula gives written beside it.
 */
final class HelperSheet {
    private static final int FIGURE = 14;
    private static final int STATEMENT = 24;
    /** Sums of more rows than this stay figures: a cell's formula has an end. */
    private static final int MOST_SUMMED = 500;
    private static final int MOST_ARGUMENTS = 200;
    private static final String PROOF = "proof ";

    private final Cells data;
    private final Plan plan;
    private final List<Series> series;
    private final Optional<Label> note;
    private final String name;
    private final String raw;
    private final SheetNames names;
    private final Styles styles;
    private final List<SheetColumn> columns = new ArrayList<>();
    private final SheetLayout layout;
    private final List<StageColumn> beside;
    private final Set<Formula> ranges;
    private final Set<String> readOnItsRow = new HashSet<>();
    private final Map<Label, Map<String, Integer>> labelAt = new LinkedHashMap<>();
    private final List<Integer> trackAt = new ArrayList<>();
    private final List<List<Series>> tracks;
    private final int categoryAt;
    private final int proofsFrom;

    /** One column: its header, and what its cells hold on a row. */
    private record SheetColumn(String title, Optional<String> titleFormula, int width, Filling cells) {
    }

    private interface Filling {
        void fill(Row line, int column, int row);
    }

    /** The sheet under a chart: its parts share one helper table. */
    HelperSheet(List<PlainChart> parts, String name, String raw, SheetNames names, Styles styles) {
        this(parts.get(parts.size() - 1).data(), parts.stream().flatMap(part -> part.series().stream()).toList(), parts.get(0).note(),
                parts.get(0).drawing() instanceof Ring ring ? ring : null, name, raw, names, styles);
    }

    HelperSheet(Tile.OfFigure figure, String name, String raw, SheetNames names, Styles styles) {
        this(figure.data(), List.of(), Optional.empty(), null, name, raw, names, styles);
    }

    private HelperSheet(Cells data, List<Series> series, Optional<Label> note, Ring ring, String name, String raw, SheetNames names,
            Styles styles) {
        this.data = data;
        this.plan = data.plan();
        this.series = ring == null ? series : new ArrayList<>(series);
        if (ring != null) {
            ring.centre().ifPresent(this.series::add);
        }
        this.note = note;
        this.tracks = ring == null ? List.of() : ring.tracks();
        this.name = name;
        this.raw = raw;
        this.names = names;
        this.styles = styles;
        this.layout = new SheetLayout(data, formulas(), raw, names);
        this.beside = layout.stages().columns().stream().filter(column -> !column.wanted()).toList();
        this.ranges = SheetFormula.ranges(layout.stages(), layout.presence());
        layout.stages().columns().stream().filter(column -> !(column.formula() instanceof Window)).forEach(column -> readOnItsRow.addAll(Reads.computed(column.formula())));
        layout.stages().columns().stream().map(StageColumn::formula).filter(Window.Cumulative.class::isInstance).forEach(sum -> readOnItsRow.addAll(Reads.computed(sum)));
        layout.stages().columns().stream().map(StageColumn::formula).filter(Window.Lookup.class::isInstance).map(Window.Lookup.class::cast)
                .forEach(lookup -> readOnItsRow.addAll(Reads.computed(lookup.wanted())));
        category();
        helpers();
        this.categoryAt = notedCategory();
        beside();
        labels();
        added();
        this.proofsFrom = columns.size();
        proofs();
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
            formulas.put(PROOF + i, plan.identities().get(i).holdsOrNeedNot());
        }
        return formulas;
    }

    /** The formula of a column once it is taken apart. */
    private StageColumn staged(String name) {
        return layout.stages().columns().stream().filter(column -> column.name().equals(name)).findFirst().orElseThrow();
    }

    private int add(String title, Optional<String> titleFormula, int width, Filling cells) {
        columns.add(new SheetColumn(title, titleFormula, width, cells));
        return columns.size() - 1;
    }

    private int add(String title, int width, Filling cells) {
        return add(title, Optional.empty(), width, cells);
    }

    private void category() {
        Column category = data.category();
        boolean inTable = plan.category().isPresent();
        RowFormula there = inTable ? new RowFormula(layout.rawCell(category.name())) : null;
        add(category.name(), (int) Styles.width(category), (line, column, row) -> {
            Cell cell = line.createCell(column);
            if (inTable && !layout.isAdded(row)) {
                cell.setCellFormula(there.at(row + 2, layout.rawLine(row)));
            }
            value(cell, category, row);
            if (category.kind() == Kind.DATE) {
                cell.setCellStyle(styles.date());
            }
        });
    }

    private void helpers() {
        List<Derived> all = computed();
        for (int i = 0; i < all.size(); i++) {
            layout.column(all.get(i).name(), columns.size() + i);
        }
        placeBeside(columns.size() + all.size() + (note.isPresent() ? 1 : 0));
        for (Derived column : all) {
            Column cells = data.column(column.name());
            Optional<Format> format = series.stream().filter(s -> s.column().equals(column.name())).flatMap(s -> s.label().stream()).map(Label::format)
                    .findFirst().filter(f -> cells.kind() == Kind.NUMBER);
            String title = readersName(column.name());
            boolean level = cells.kind() == Kind.NUMBER && cells.size() > 0 && (column.formula() instanceof Leaf.Setting || column.formula() instanceof Leaf.Literal);
            Format written = level ? levelFormat(cells) : null;
            Optional<String> live = level && column.formula() instanceof Leaf.Setting setting
                    ? Optional.of("\"" + title.replace("\"", "\"\"") + " \"&" + NumberFormats.text(names.defined(setting.name()), written)) : Optional.empty();
            add(level ? title + " " + written.write(cells.number(0)) : title, live, FIGURE, formula(staged(column.name()).formula(), cells, format));
        }
    }

    private String readersName(String column) {
        return series.stream().filter(s -> s.column().equals(column)).map(Series::name).findFirst().orElse(column);
    }

    /** As the chart writes its figures, or as the level itself needs. */
    private Format levelFormat(Column level) {
        return series.stream().flatMap(s -> s.label().stream()).map(Label::format).findFirst().orElseGet(() -> Format.of(decimals(level)));
    }

    /** The decimals that show a level, which is the same on every row. */
    private int decimals(Column level) {
        return (int) data.evaluate(Format.decimals(List.of(Formulas.number(level.number(0))))).number(0);
    }

    /** The category with its note, where it has one. */
    private int notedCategory() {
        String base = plan.nameColumn().map(layout::cell).orElse("A" + RowFormula.HERE);
        if (note.isEmpty()) {
            return plan.nameColumn().map(layout::at).orElse(0);
        }
        Column cells = data.column(note.get().column());
        String text = layout.cell(note.get().column());
        String written = cells.kind() == Kind.TEXT ? text : NumberFormats.text(text, note.get().format());
        RowFormula formula = new RowFormula(base + "&IFERROR(\" (\"&" + written + "&\")\",\"\")");
        return add("category with its note", STATEMENT, (line, column, row) -> {
            Cell cell = line.createCell(column);
            cell.setCellFormula(formula.at(row + 2, 0));
            cell.setCellValue(categoryText(row));
        });
    }

    private String categoryText(int row) {
        String after = note.map(label -> {
            Column cells = data.column(label.column());
            return cells.kind() == Kind.TEXT ? cells.written(row) : label.format().write(cells.number(row));
        }).orElse("");
        return plan.nameColumn().map(data::column).orElseGet(data::category).written(row) + (after.isEmpty() ? "" : " (" + after + ")");
    }

    /** What stands beside the plan's columns: pieces of formulas that several need, and cells that others run over. */
    private void placeBeside(int from) {
        int at = from;
        for (StageColumn column : beside) {
            layout.column(column.name(), at++);
        }
        for (Formula leaf : ranges) {
            if (leaf instanceof Leaf.Computed made && besideOnly(made.name())) {
                layout.range(leaf, layout.at(made.name()));
            } else {
                layout.range(leaf, at++);
            }
        }
    }

    /** Whether the cells of a column stand beside for others to run over, and for nothing else. */
    private boolean besideOnly(String name) {
        return beside.stream().anyMatch(column -> column.name().equals(name)) && !readOnItsRow.contains(name);
    }

    private void beside() {
        Map<String, Column> values = new LinkedHashMap<>();
        for (StageColumn column : layout.stages().columns()) {
            if (beside.contains(column)) {
                values.put(column.name(), data.evaluate(inFull(column.formula())));
            }
        }
        for (StageColumn column : beside) {
            boolean range = besideOnly(column.name());
            SheetLayout.RowFormulas variants = layout.formulas(columns.size(), writer -> range ? writer.writeInRange(column.formula()) : writer.write(column.formula()));
            add((range ? "of every row: " : "piece: ") + column.name(), STATEMENT, cells(variants, values.get(column.name()), range));
        }
        for (Formula leaf : ranges) {
            if (!(leaf instanceof Leaf.Computed made && besideOnly(made.name()))) {
                SheetLayout.RowFormulas variants = layout.formulas(columns.size(), writer -> writer.writeInRange(leaf));
                Column cells = leaf instanceof Leaf.Computed made && values.containsKey(made.name()) ? values.get(made.name()) : data.evaluate(leaf);
                add("of every row: " + leaf.title(), STATEMENT, cells(variants, cells, true));
            }
        }
    }

    /** A formula with the pieces that stand beside put back, as the plan's cells know nothing of them. */
    private Formula inFull(Formula formula) {
        if (formula instanceof Leaf.Computed made) {
            Optional<StageColumn> piece = beside.stream().filter(column -> column.name().equals(made.name())).findFirst();
            return piece.isPresent() ? inFull(piece.get().formula()) : formula;
        }
        return formula.operands().isEmpty() ? formula : formula.rebuilt(formula.operands().stream().map(this::inFull).toList());
    }

    private static Filling cells(SheetLayout.RowFormulas variants, Column values, boolean range) {
        return (line, column, row) -> {
            Cell cell = line.createCell(column);
            cell.setCellFormula(variants.at(row));
            if (range && !values.isPresent(row)) {
                cell.setCellValue("");
            } else {
                value(cell, values, row);
            }
        };
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
        boolean text = words || NumberFormats.hasOptionalDecimals(label.format());
        String figure = layout.cell(label.column());
        String rounded = words ? figure : text ? NumberFormats.text(figure, label.format()) : NumberFormats.rounded(figure, label.format());
        RowFormula formula = new RowFormula("IF(ISERROR(" + layout.cell(of) + "),\"\",IFERROR(" + rounded + ",\"\"))");
        return add("words beside " + of, FIGURE, (line, column, row) -> {
            Cell cell = line.createCell(column);
            cell.setCellFormula(formula.at(row + 2, 0));
            if (!drawn.isPresent(row) || !figures.isPresent(row)) {
                cell.setCellValue("");
            } else if (text && !words) {
                cell.setCellValue(label.format().write(figures.number(row)));
            } else {
                value(cell, figures, row);
            }
            if (!text) {
                cell.setCellStyle(styles.figure(label.format()));
            }
        });
    }

    /** The figures of rows that are on no raw sheet: sums of raw rows, or what the row was given. */
    private void added() {
        if (IntStream.range(0, data.rowCount()).noneMatch(layout::isAdded)) {
            return;
        }
        Set<String> read = new LinkedHashSet<>();
        formulas().values().forEach(formula -> read.addAll(Reads.columns(formula)));
        for (String input : read) {
            Column cells = data.rows().column(input);
            layout.added(input, add(input + " of added rows", FIGURE, (line, column, row) -> {
                if (layout.isAdded(row) && cells.isPresent(row)) {
                    Cell cell = line.createCell(column);
                    int[] summed = data.rows().summedRows(row, input);
                    if (cells.kind() == Kind.NUMBER && summed.length > 0 && summed.length <= MOST_SUMMED) {
                        cell.setCellFormula("SUM(" + areas(input, summed) + ")");
                    }
                    value(cell, cells, row);
                }
            }));
        }
    }

    /** Raw cells below each other as one area each, in bundles that a function takes. */
    private String areas(String input, int[] rows) {
        int[] sorted = IntStream.of(rows).sorted().toArray();
        List<String> areas = new ArrayList<>();
        int at = data.rows().whole().columnNames().indexOf(input);
        for (int i = 0; i < sorted.length; i++) {
            int first = i;
            while (i + 1 < sorted.length && sorted[i + 1] == sorted[i] + 1) {
                i++;
            }
            areas.add(new CellRangeAddress(sorted[first] + 1, sorted[i] + 1, at, at).formatAsString(raw, false));
        }
        if (areas.size() <= MOST_ARGUMENTS) {
            return String.join(",", areas);
        }
        List<String> bundles = new ArrayList<>();
        for (int i = 0; i < areas.size(); i += MOST_ARGUMENTS) {
            bundles.add("SUM(" + String.join(",", areas.subList(i, Math.min(areas.size(), i + MOST_ARGUMENTS))) + ")");
        }
        return String.join(",", bundles);
    }

    private void proofs() {
        for (int i = 0; i < plan.identities().size(); i++) {
            Identity identity = plan.identities().get(i);
            Formula formula = staged(PROOF + i).formula();
            SheetLayout.RowFormulas variants = layout.formulas(columns.size(), writer -> writer.write(formula));
            Column cells = data.evaluate(identity.holdsOrNeedNot());
            add(identity.statement(), STATEMENT, (line, column, row) -> {
                Cell cell = line.createCell(column);
                cell.setCellFormula(variants.at(row));
                cell.setCellValue(cells.number(row) == 1);
            });
        }
    }

    /** A ring's slices below each other, as its chart reads them. */
    private void slices() {
        for (List<Series> track : tracks) {
            trackAt.add(add("slice", FIGURE, (line, column, row) -> {
                if (row < track.size()) {
                    line.createCell(column).setCellValue(track.get(row).name());
                }
            }));
            add("size", FIGURE, (line, column, row) -> {
                if (row < track.size() && data.rowCount() > 0) {
                    Cell cell = line.createCell(column);
                    cell.setCellFormula("IFERROR($" + CellReference.convertNumToColString(layout.at(track.get(row).column())) + "$2,0)");
                    cell.setCellValue(size(track.get(row)));
                }
            });
        }
    }

    private double size(Series slice) {
        Column cells = data.column(slice.column());
        return cells.isPresent(0) ? cells.number(0) : 0;
    }

    private Filling formula(Formula formula, Column values, Optional<Format> format) {
        SheetLayout.RowFormulas variants = layout.formulas(columns.size(), writer -> writer.write(formula));
        Optional<CellStyle> style = format.map(styles::figure);
        return (line, column, row) -> {
            Cell cell = line.createCell(column);
            cell.setCellFormula(variants.at(row));
            value(cell, values, row);
            style.ifPresent(cell::setCellStyle);
        };
    }

    private static void value(Cell cell, Column values, int row) {
        if (!values.isPresent(row)) {
            cell.setCellErrorValue(FormulaError.NA.getCode());
        } else if (values.kind() == Kind.TEXT) {
            cell.setCellValue(values.written(row));
        } else if (values.kind() == Kind.TRUTH) {
            cell.setCellValue(values.number(row) == 1);
        } else if (values.kind() == Kind.DATE) {
            cell.setCellValue(values.date(row).orElseThrow());
        } else {
            cell.setCellValue(values.number(row));
        }
    }

    List<Double> widths() {
        return columns.stream().map(column -> (double) column.width()).toList();
    }

    void fill(Sheet sheet) {
        LiveWorkbook.header(sheet, styles, columns.stream().map(SheetColumn::title).toList(), 1);
        Row header = sheet.getRow(0);
        for (int i = 0; i < columns.size(); i++) {
            Cell cell = header.getCell(i);
            String words = columns.get(i).title();
            columns.get(i).titleFormula().ifPresent(formula -> {
                cell.setCellFormula(formula);
                cell.setCellValue(words);
            });
        }
        int longest = tracks.stream().mapToInt(List::size).max().orElse(0);
        for (int row = 0; row < Math.max(data.rowCount(), longest); row++) {
            Row line = sheet.createRow(row + 1);
            for (int i = row < data.rowCount() ? 0 : trackAt.get(0); i < columns.size(); i++) {
                columns.get(i).cells().fill(line, i, row);
            }
        }
    }

    /** The cell over a series' cells, which names it. */
    CellReference titleOf(Series of) {
        return new CellReference(name, 0, layout.at(of.column()), true, true);
    }

    /** What stands in that cell. */
    String titleText(Series of) {
        return columns.get(layout.at(of.column())).title();
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
        return new CellReference(name, row + 1, column, true, true).formatAsString();
    }

    String sliceNames(int track) {
        return range(trackAt.get(track), trackAt.get(track), tracks.get(track).size());
    }

    String sliceSizes(int track) {
        return range(trackAt.get(track) + 1, trackAt.get(track) + 1, tracks.get(track).size());
    }

    /** All the TRUE and FALSE of the identities; empty where there are none. */
    Optional<String> proofCells() {
        return plan.identities().isEmpty() || data.rowCount() == 0 ? Optional.empty()
                : Optional.of(range(proofsFrom, proofsFrom + plan.identities().size() - 1, data.rowCount()));
    }

    Cells data() {
        return data;
    }

    private String range(int column) {
        return range(column, column, data.rowCount());
    }

    private String range(int firstColumn, int lastColumn, int rows) {
        return new CellRangeAddress(1, Math.max(1, rows), firstColumn, lastColumn).formatAsString(name, true);
    }
}
