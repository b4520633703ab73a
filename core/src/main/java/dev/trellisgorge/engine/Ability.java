package dev.trellisgorge.engine;

/** What an engine may be unable to draw. What it lacks is lowered to what it has, or refused ({@link Lowering}). */
public enum Ability {
    /** Several panels that share the category axis. */
    PANELS,
    /** More than two groups of bars over each other, on one scale. */
    MANY_LAYERS,
    /** Several labels on one bar, and labels on the slices of a ring. */
    SEVERAL_LABELS,
    /** Labels past the end of a stack. */
    STACK_END_LABELS,
    LINES,
    /** Lines and points over bars that lie. */
    LYING_MARKS,
    REFERENCE_LINES,
    /** A value axis that covers figures which are not drawn. */
    REACHING_SCALE,
    /** Labels that are texts of cells, and follow them; where not, such texts are written after the names of the rows. */
    LABELS_OF_CELLS,
    /** Bars in cells, beside texts and figures; where not, they are of characters. */
    BARS_IN_CELLS,
    /** Charts that are looked at as they are drawn; where not, cells may change, and series that have none now are drawn too. */
    STILL
}
