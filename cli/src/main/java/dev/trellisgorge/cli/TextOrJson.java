package dev.trellisgorge.cli;

import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;

/** The option for the form of what a command says: for people, or for programs. */
final class TextOrJson {

    /** The forms of the output. */
    enum Form {
        text, json
    }

    private final OptionSpec option = Command.option(Form.class, "FORM", "--as").initialValue(Form.text)
            .description("text (for people) or json; text by default.").build();

    CommandSpec addTo(CommandSpec spec) {
        return spec.addOption(option);
    }

    boolean isJson() {
        return option.<Form>getValue() == Form.json;
    }
}
