package dev.trellisgorge.bench;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.pattern.Bands;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.ToTarget;
import dev.trellisgorge.pattern.Waterfall;
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

/** The helper columns of five patterns, by formula and by hand. */
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

    @Setup
    public void make() {
        figures = new Figures(rows);
    }

    @Benchmark
    public Object split() {
        return figures.computed(Columns.of("value").classify(Split.at(400)));
    }

    @Benchmark
    public Object splitByHand() {
        return HandLoops.split(figures.value, 400);
    }

    @Benchmark
    public Object bands() {
        return figures.computed(Columns.of("value").classify(Bands.at(LIMITS)));
    }

    @Benchmark
    public Object bandsByHand() {
        return HandLoops.bands(figures.value, LIMITS);
    }

    @Benchmark
    public Object toTarget() {
        return figures.computed(ToTarget.of("value", "target"));
    }

    @Benchmark
    public Object toTargetByHand() {
        return HandLoops.toTarget(figures.value, figures.target);
    }

    @Benchmark
    public Object waterfall() {
        return figures.computed(Waterfall.of("value"));
    }

    @Benchmark
    public Object waterfallByHand() {
        return HandLoops.waterfall(figures.value);
    }

    @Benchmark
    public Object rank() {
        Formula rank = new Formula.Rank(Formulas.column("value"), Formula.Direction.DESCENDING, Formula.Equals.SHARED);
        return figures.evaluated(rank);
    }

    @Benchmark
    public Object rankByHand() {
        return HandLoops.rank(figures.value);
    }
}
