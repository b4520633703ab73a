package dev.trellisgorge.pattern;

import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Looks earlier rows up before the filters that would take them away: the filters on the category at the end of a pipeline are
 * put off until the figure of the earlier row stands beside each row.
 */
final class Filters {
    private Filters() {
    }

    /** The pipeline with the earlier figure in a column, and that column's name; empty where no filter takes earlier rows away. */
    static Optional<Looked> before(Pipeline pipeline, Lookback lookback, String category, Schema schema) {
        int filters = pipeline.parts().size();
        while (filters > 0 && pipeline.parts().get(filters - 1).step().traits().filter().isPresent()) {
            filters--;
        }
        List<Pipeline.Part> late = new ArrayList<>();
        Pipeline early = new Pipeline(pipeline.source(), pipeline.name(), pipeline.parts().subList(0, filters));
        for (Pipeline.Part part : pipeline.parts().subList(filters, pipeline.parts().size())) {
            if (part.step().traits().filter().equals(Optional.of(Set.of(category)))) {
                late.add(part);
            } else {
                early = early.then(part.step(), part.place());
            }
        }
        if (late.isEmpty()) {
            return Optional.empty();
        }
        String figure = lookback.of().title();
        if (!schema.has(figure) || !lookback.of().equals(Formulas.column(figure))) {
            figure = schema.free("compared figure");
            early = early.then(new AddColumn(figure, lookback.of()));
        }
        String column = schema.free("previous " + lookback.of().title());
        Pipeline looked = early.then(new Previous(figure, column, lookback.period() ? Optional.of(category) : Optional.empty(), lookback.unit(), List.of()));
        for (Pipeline.Part part : late) {
            looked = looked.then(part.step(), part.place());
        }
        return Optional.of(new Looked(looked, column));
    }

    /** A pipeline, and the column in which the earlier figure stands. */
    record Looked(Pipeline pipeline, String column) {
    }
}
