package dev.trellisgorge.bench;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.pattern.Bands;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.ToTarget;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.plan.Plan;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The series of four patterns and a rank, by formula and by hand; working columns that nothing reads are computed by neither. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgs = {"-Xms12g", "-Xmx12g", "-Xmn9g", "-XX:+UseParallelGC", "-XX:+AlwaysPreTouch"})
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class PatternBenchmark {
    private static final double[] LIMITS = {0, 200, 400, 600, 800};

    @Param({"10000", "100000", "1000000", "10000000"})
    private int rows;

    private Figures figures;
    private Plan split;
    private Plan bands;
    private Plan toTarget;
    private Plan waterfall;

    @Setup
    public void make() {
        figures = new Figures(rows);
        split = figures.plan(Columns.of("value").classify(Split.at(400)));
        bands = figures.plan(Columns.of("value").classify(Bands.at(LIMITS)));
        toTarget = figures.plan(ToTarget.of("value", "target"));
        waterfall = figures.plan(Waterfall.of("value"));
    }

    @Benchmark
    public Object split() {
        return figures.series(split);
    }

    @Benchmark
    public Object splitByHand() {
        return HandLoops.split(figures.value, 400);
    }

    @Benchmark
    public Object bands() {
        return figures.series(bands);
    }

    @Benchmark
    public Object bandsByHand() {
        return HandLoops.bands(figures.value, LIMITS);
    }

    @Benchmark
    public Object toTarget() {
        return figures.series(toTarget);
    }

    @Benchmark
    public Object toTargetByHand() {
        return HandLoops.toTarget(figures.value, figures.target);
    }

    @Benchmark
    public Object waterfall() {
        return figures.series(waterfall);
    }

    @Benchmark
    public Object waterfallByHand() {
        return HandLoops.waterfall(figures.value);
    }

    @Benchmark
    public Object rank() {
        Formula rank = new Window.Rank(Formulas.column("value"), Window.Direction.DESCENDING, Window.Ties.SHARED);
        return figures.evaluated(rank);
    }

    @Benchmark
    public Object rankByHand() {
        return HandLoops.rank(figures.value);
    }
}
