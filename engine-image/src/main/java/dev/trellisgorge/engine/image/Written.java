package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.Format;
import java.text.FieldPosition;
import java.text.NumberFormat;
import java.text.ParsePosition;

/** Writes the figures along an axis as a chart's format says. */
final class Written extends NumberFormat {
    private static final long serialVersionUID = 1L;

    private final transient Format format;

    Written(Format format) {
        this.format = format;
    }

    @Override
    public StringBuffer format(double figure, StringBuffer to, FieldPosition place) {
        return to.append(format.write(figure));
    }

    @Override
    public StringBuffer format(long figure, StringBuffer to, FieldPosition place) {
        return format((double) figure, to, place);
    }

    @Override
    public Number parse(String words, ParsePosition at) {
        throw new UnsupportedOperationException("axes are written and never read");
    }
}
