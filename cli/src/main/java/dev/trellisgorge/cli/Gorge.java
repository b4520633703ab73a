package dev.trellisgorge.cli;

import dev.trellisgorge.file.Temporaries;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Memory;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Characters;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.InvalidPathException;
import picocli.CommandLine;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Help.ColorScheme;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.ParseResult;
import picocli.CommandLine.UnmatchedArgumentException;

/**
 * The {@code gorge} command. Results go to standard output, everything else to standard error. Exit codes: 0 done,
 * 1 a check failed, 2 wrong usage or bad input, 70 a fault of the program's own.
 */
public final class Gorge {
    static final int DONE = 0;
    static final int CHECK_FAILED = 1;
    static final int BAD_INPUT = 2;
    static final int OWN_FAULT = 70;
    private static final int MOST_PROBLEMS = Bound.PROBLEMS_SHOWN.count();

    private Gorge() {
    }

    /** Runs the command on the process's own streams and exits. */
    public static void main(String[] arguments) {
        Results results = new Results(new FileOutputStream(FileDescriptor.out));
        PrintStream out = new PrintStream(results, false, StandardCharsets.UTF_8);
        PrintStream err = new PrintStream(new FileOutputStream(FileDescriptor.err), true, StandardCharsets.UTF_8);
        int code = run(new Streams(out, err, Terminal.own()), arguments);
        if (out.checkError()) {
            results.failure().ifPresent(why -> err.println("gorge: can't write to standard output: " + why));
            code = code == DONE ? BAD_INPUT : code;
        }
        Temporaries.clear();
        // Not exit: nothing is left to be waited for, and the shut-down hooks of libraries take time.
        Runtime.getRuntime().halt(code);
    }

    /** Runs one command and gives its exit code; for tests and for programs that hold the command inside. */
    public static int run(PrintStream out, PrintStream err, String... arguments) {
        Streams streams = new Streams(out, err, Terminal.NONE);
        try {
            return run(streams, arguments);
        } finally {
            streams.leave(); // a process of its own ends instead, which is quicker
        }
    }

    static int run(Streams streams, String... arguments) {
        PrintStream out = streams.out();
        PrintStream err = streams.err();
        Commands commands = new Commands(streams, arguments);
        CommandLine line = new CommandLine(commands.spec(), Command.FACTORY);
        line.setOut(new PrintWriter(out, true, StandardCharsets.UTF_8));
        line.setErr(new PrintWriter(err, true, StandardCharsets.UTF_8));
        line.setColorScheme(new ColorScheme.Builder(Ansi.OFF).build());
        try {
            ParseResult given = line.parseArgs(arguments);
            Integer helped = CommandLine.executeHelpRequest(given);
            if (helped != null) {
                return helped;
            }
            if (!given.hasSubcommand()) {
                line.usage(line.getErr());
                throw new BadInput(Place.of(""), ProblemKind.MISSING, "say which command to run");
            }
            return commands.named(given.subcommand().commandSpec().name()).run(given.subcommand());
        } catch (ParameterException e) {
            return wrongUsage(e);
        } catch (Exception | Error e) {
            return told(e, err);
        } finally {
            out.flush();
        }
    }

    /** Says what went wrong; the exit code that belongs to it. */
    static int told(Throwable wrong, PrintStream err) {
        if (wrong instanceof BadInput bad) {
            bad.problems().stream().limit(MOST_PROBLEMS).forEach(problem -> err.println("gorge: " + Characters.shown(problem.toString())));
            if (bad.problems().size() > MOST_PROBLEMS) {
                err.println("gorge: and " + (bad.problems().size() - MOST_PROBLEMS) + " more");
            }
            return BAD_INPUT;
        }
        if (wrong instanceof InvalidPathException path) {
            err.println("gorge: '" + Characters.shown(path.getInput()) + "' can't name a file here" + (path.getInput().indexOf('\0') >= 0 ? ": it holds a character that no name has (U+0000)"
                    : "; take a locale of UTF-8, as with LC_ALL=C.UTF-8"));
            return BAD_INPUT;
        }
        if (wrong instanceof OutOfMemoryError) {
            return told(Memory.ended(Place.of(""), "what the charts are computed from", "give it fewer rows or columns"), err);
        }
        err.println("gorge: a fault of the program's own: " + wrong);
        wrong.printStackTrace(err);
        return OWN_FAULT;
    }

    private static int wrongUsage(ParameterException e) {
        CommandLine command = e.getCommandLine();
        command.getErr().println("gorge: " + Characters.shown(e.getMessage()));
        UnmatchedArgumentException.printSuggestions(e, command.getErr());
        command.getErr().println("Try '" + command.getCommandSpec().qualifiedName() + " --help'.");
        return BAD_INPUT;
    }
}
