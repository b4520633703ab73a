package dev.trellisgorge.brief;

import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Characters;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Optional;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.composer.Composer;
import org.snakeyaml.engine.v2.events.Event;
import org.snakeyaml.engine.v2.events.ScalarEvent;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.parser.Parser;
import org.snakeyaml.engine.v2.parser.ParserImpl;
import org.snakeyaml.engine.v2.scanner.StreamReader;

/** The text of a brief as YAML, of which JSON is a part; how long and how deep it may be is bounded, and so are its aliases. */
final class BriefText {
    private static final int MOST_SIGNS = Bound.BRIEF_CHARACTERS.count();
    private static final int MOST_ALIASES = Bound.BRIEF_ALIASES.count();
    private static final int DEEPEST = Bound.BRIEF_DEPTH.count();

    private final String name;

    private BriefText(String name) {
        this.name = name;
    }

    /**
     * @param name what messages call it
     * @throws BadInput where there is no such file, or it is no YAML, with the place in it
     */
    static Node read(Path file, String name) {
        if (Files.exists(file) && !Files.isRegularFile(file) && !Files.isDirectory(file)) {
            throw new BadInput(Place.inFile(name), ProblemKind.UNREADABLE, "is a device or a pipe, which may have no end; save it as a file");
        }
        try {
            return parse(Files.readString(file), name);
        } catch (NoSuchFileException e) {
            throw new BadInput(Place.inFile(name), ProblemKind.UNREADABLE, "there is no such file");
        } catch (CharacterCodingException e) {
            throw new BadInput(Place.inFile(name), ProblemKind.UNREADABLE, "is not UTF-8 text; save it as UTF-8");
        } catch (IOException e) {
            throw new BadInput(Place.inFile(name), ProblemKind.UNREADABLE, Files.isDirectory(file) ? "is a folder; name a brief in it" : "can't read: " + AtomicFiles.reason(e));
        }
    }

    /** @param name what messages call it */
    static Node parse(String text, String name) {
        return new BriefText(name).parsed(text.startsWith("\uFEFF") ? text.substring(1) : text);
    }

    private Node parsed(String text) {
        if (text.length() > MOST_SIGNS) {
            throw new BadInput(Place.inFile(name), ProblemKind.TOO_LARGE, "has more than the " + MOST_SIGNS + " characters that are read; data stands in files of its own");
        }
        LoadSettings settings = LoadSettings.builder().setLabel(name).setMaxAliasesForCollections(MOST_ALIASES).build();
        try {
            return new Composer(settings, bounded(new ParserImpl(settings, new StreamReader(settings, text)))).getSingleNode()
                    .orElseThrow(() -> new BadInput(Place.inFile(name), ProblemKind.UNREADABLE, "is empty; a brief starts with 'brief: 1'"));
        } catch (MarkedYamlEngineException e) {
            throw new BadInput(place(e.getProblemMark()), ProblemKind.SYNTAX, "is no YAML: " + e.getProblem());
        } catch (IllegalArgumentException e) { // the library's own reading of it fails
            throw new BadInput(Place.inFile(name), ProblemKind.SYNTAX, "is no YAML: a character after '\\x', '\\u' or '\\U' is to be given by its number, in hexadecimal digits");
        } catch (YamlEngineException e) {
            throw new BadInput(Place.inFile(name), ProblemKind.TOO_LARGE, e.getMessage().contains("aliases") ? "repeats more than " + MOST_ALIASES + " lists and mappings by aliases; write them out"
                    : "is no YAML: " + e.getMessage());
        }
    }

    private Place place(Optional<Mark> mark) {
        return mark.map(m -> Place.inFile(name, m.getLine() + 1, m.getColumn() + 1)).orElse(Place.inFile(name));
    }

    private void refuseOthers(ScalarEvent text) {
        int at = Characters.firstOther(text.getValue());
        if (at >= 0) {
            throw new BadInput(place(text.getStartMark()), ProblemKind.SYNTAX, "this text holds a character that can't be shown (U+%04X); leave it out".formatted((int) text.getValue().charAt(at)));
        }
    }

    /** Refuses lists and mappings that stand in each other too deeply to be a brief. */
    private Parser bounded(Parser parser) {
        return new Parser() {
            private int depth;

            @Override
            public boolean checkEvent(Event.ID choice) {
                return parser.checkEvent(choice);
            }

            @Override
            public Event peekEvent() {
                return parser.peekEvent();
            }

            @Override
            public boolean hasNext() {
                return parser.hasNext();
            }

            @Override
            public Event next() {
                Event event = parser.next();
                switch (event.getEventId()) {
                    case SequenceStart, MappingStart -> depth++;
                    case SequenceEnd, MappingEnd -> depth--;
                    default -> {
                        // stays as deep
                    }
                }
                if (event instanceof ScalarEvent text) {
                    refuseOthers(text);
                }
                if (depth > DEEPEST) {
                    throw new BadInput(place(event.getStartMark()), ProblemKind.TOO_LARGE, "stands in more than " + DEEPEST + " lists and mappings");
                }
                return event;
            }
        };
    }
}
