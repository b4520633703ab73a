package dev.trellisgorge.engine.image;

import java.util.List;
import org.jfree.chart.labels.CategoryItemLabelGenerator;
import org.jfree.data.category.CategoryDataset;

/** The label texts of one series of bars, as they are given: one a category, none where the text is empty. */
record BarLabels(List<String> texts) implements CategoryItemLabelGenerator {

    @Override
    public String generateLabel(CategoryDataset dataset, int series, int category) {
        return texts.get(category).isEmpty() ? null : texts.get(category);
    }

    @Override
    public String generateRowLabel(CategoryDataset dataset, int series) {
        return dataset.getRowKey(series).toString();
    }

    @Override
    public String generateColumnLabel(CategoryDataset dataset, int category) {
        return dataset.getColumnKey(category).toString();
    }
}
