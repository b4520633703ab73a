package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.engine.Ability;
import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.io.IOException;
import java.io.OutputStream;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;

/** Draws pages as pictures: {@code .png} (sRGB), {@code .svg} and {@code .pdf} (text stays text; a page each). */
public final class ImageEngine implements Engine {
    private static final double LARGEST = Bound.PICTURE_FIGURE.most();
    private static final double SMALLEST = 1e-290;
    private static final int MOST_ROWS = Bound.PICTURE_ROWS.count();
    private static final int MOST_LINES = Bound.PICTURE_LINES.count();

    @Override
    public Set<String> endings() {
        return Set.of("png", "svg", "pdf");
    }

    @Override
    public boolean holdsSeveral(String ending) {
        return ending.equals("pdf");
    }

    @Override
    public Set<Ability> abilities() {
        return EnumSet.complementOf(EnumSet.of(Ability.BARS_IN_CELLS));
    }

    /** The scale of a picture is worked out from its largest figure, in doubles: sums and steps of it must be doubles too. */
    @Override
    public Optional<String> refusal(PlainChart chart) {
        if (chart.drawing() instanceof TextCells && chart.data().rowCount() > MOST_LINES) {
            return Optional.of("a picture shows at most " + MOST_LINES + " lines of text, and there are " + chart.data().rowCount() + " rows; keep some of them with 'rank' or 'keep'");
        }
        DoubleStream cells = chart.data().series().stream().filter(series -> series.kind() == Kind.NUMBER)
                .flatMapToDouble(series -> IntStream.range(0, series.size()).mapToDouble(series::number));
        DoubleStream ends = chart.panels().stream().map(chart::extent).flatMapToDouble(extent -> DoubleStream.of(extent.low(), extent.high()));
        double largest = DoubleStream.concat(cells, ends).map(Math::abs).filter(figure -> figure > 0).max().orElse(1);
        return largest <= LARGEST && largest >= SMALLEST ? Optional.empty() : Optional.of("a picture shows figures from " + Numbers.shortest(SMALLEST) + " to "
                + Numbers.shortest(LARGEST) + ", and the largest one here is " + Numbers.shortest(largest) + "; draw it in another unit");
    }

    /** One for each pixel along the base. */
    @Override
    public OptionalInt mostRows(PlainChart chart, int width, int height) {
        return OptionalInt.of(Math.min(MOST_ROWS, chart.orientation() == Orientation.VERTICAL ? width : height));
    }

    @Override
    public Set<Options.Extra> takes(String ending) {
        return ending.equals("pdf") ? EnumSet.of(Options.Extra.AUTHOR, Options.Extra.DATE) : Set.of();
    }

    @Override
    public void draw(List<Page> pages, String ending, Options options, OutputStream out, Consumer<String> warnings) throws IOException {
        if (!ending.equals("svg")) { // which leaves what the typeface lacks to the viewer's fonts
            pages.forEach(page -> Scripts.leftOut(page).forEach(sentence -> warnings.accept("'" + page.name() + "': " + sentence)));
        }
        Omitted omitted = new Omitted();
        switch (ending) {
            case "svg" -> new Picture(pages.get(0), options.size(), omitted).writeSvg(out);
            case "pdf" -> new Document(pages, options, omitted).writeTo(out);
            default -> new Picture(pages.get(0), options.size(), omitted).writePng(out);
        }
        omitted.tell(warnings);
    }
}
