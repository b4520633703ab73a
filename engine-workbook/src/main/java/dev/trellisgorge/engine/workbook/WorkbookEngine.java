package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Ability;
import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sheet.Book;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;

/**
 * Writes pages as a workbook ({@code .xlsx}, SpreadsheetML) that stays live: raw rows, settings as named cells, helper
 * columns as formulas with their values beside them, and native charts over the helper columns.
 */
public final class WorkbookEngine implements Engine {

    @Override
    public Set<String> endings() {
        return Set.of("xlsx", "xlsm");
    }

    @Override
    public boolean holdsSeveral(String ending) {
        return true;
    }

    /** Native charts have no reference lines, no lines and points over lying bars, and at most two groups of bars over each other. */
    static Set<Ability> ofNativeCharts() {
        return EnumSet.complementOf(EnumSet.of(Ability.PANELS, Ability.MANY_LAYERS, Ability.SEVERAL_LABELS, Ability.STACK_END_LABELS, Ability.LYING_MARKS,
                Ability.REFERENCE_LINES, Ability.REACHING_SCALE, Ability.STILL, Ability.BARS_IN_CELLS));
    }

    @Override
    public Set<Ability> abilities() {
        Set<Ability> abilities = EnumSet.copyOf(ofNativeCharts());
        abilities.add(Ability.BARS_IN_CELLS);
        return abilities;
    }

    @Override
    public Set<Options.Extra> takes(String ending) {
        return EnumSet.allOf(Options.Extra.class);
    }

    @Override
    public void draw(List<Page> pages, String ending, Options options, OutputStream out, Consumer<String> warnings) throws IOException {
        if (options.into().isPresent()) {
            into(options.into().get(), pages, ending, options, out, warnings);
        } else if (ending.equals("xlsm")) {
            throw new BadInput(Place.of("." + ending), ProblemKind.UNSUPPORTED, "a workbook with macros can be drawn into, not created; write to .xlsx");
        } else {
            BookWriter.write(describe(pages, abilities(), options, warnings), out);
        }
    }

    /**
     * Lays pages out as a workbook, which is not written.
     *
     * @param abilities those of the engine that writes it
     * @param warnings takes a sentence for each thing that is left out or stays as it is drawn
     * @throws BadInput where something does not fit on a sheet
     */
    public static Book describe(List<Page> pages, Set<Ability> abilities, Options options, Consumer<String> warnings) {
        return new LiveWorkbook(pages, abilities, options, warnings, Optional.empty()).describe();
    }

    private void into(Path file, List<Page> pages, String ending, Options options, OutputStream out, Consumer<String> warnings) throws IOException {
        if (!file.toString().toLowerCase(Locale.ROOT).endsWith("." + ending)) {
            throw new BadInput(Place.inFile(file.toString()), ProblemKind.UNSUPPORTED, "can't be written as ." + ending + ", which is another kind of file");
        }
        HostWorkbook host = HostWorkbook.open(file);
        host.warnings().forEach(warnings);
        LiveWorkbook ours = new LiveWorkbook(pages, abilities(), options, warnings, Optional.of(host));
        ByteArrayOutputStream made = new ByteArrayOutputStream();
        BookWriter.write(ours.describe(), made);
        host.putIn(made.toByteArray(), ours.onOther());
        host.writeTo(out);
    }

    /** The program that last wrote a workbook states its name. */
    @Override
    public Optional<String> loss(Path there) {
        return HostWorkbook.writer(there).filter(writer -> !writer.equals(LiveWorkbook.PROGRAM)).map(writer -> "was last written by another program, so it may hold what would be lost");
    }
}
