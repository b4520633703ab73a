package dev.trellisgorge.chart;

/** What an engine may be able to draw. What it lacks is lowered to what it has, or refused ({@link Lowering}). */
public enum Ability {
    /** Several panels that share the category axis. */
    PANELS,
    /** Bars of one category in the same place, each from the base line. */
    OVERLAP,
    /** Stacks that grow up from the base line with what is above zero, and down from it with what is below. */
    SIGNED_STACKS,
    /** Several groups of bars over each other, on one scale. */
    LAYERS,
    /** More than two of them. */
    MANY_LAYERS,
    /** Areas without a fill. */
    NO_FILL,
    /** Cells in which nothing is drawn. */
    ABSENT_CELLS,
    /** Labels of any text, not the length of their own bar alone. */
    LABEL_TEXT,
    /** Labels past the end of a stack. */
    STACK_END_LABELS,
    LINES,
    /** Points over bars that stand upright. */
    POINTS,
    /** Points over bars that lie. */
    LYING_POINTS,
    REFERENCE_LINES,
    /** A value axis that covers figures which are not drawn. */
    REACHING_SCALE,
    /** A value axis that runs backwards. */
    BACKWARDS_SCALE,
    /** Lying bars that read from the top down. */
    REVERSED_CATEGORIES,
    RINGS,
    /** Rings whose first slice starts anywhere. */
    START_ANGLE,
    /** Texts in columns beside the categories. */
    TEXT_CELLS
}
