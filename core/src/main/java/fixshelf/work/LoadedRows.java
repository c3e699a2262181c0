package fixshelf.work;

import fixshelf.fetch.Consent;
import fixshelf.fetch.CopyWriter;
import fixshelf.fetch.Source;
import fixshelf.plan.Line;
import fixshelf.plan.TableFix;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.type.Amounts;
import fixshelf.type.Column;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// The rows that a call of a loader gives, as texts, for looking at them like at a file.
final class LoadedRows implements Source {
    private final PlannedJob call;
    private final Optional<String> words;
    private Count count = Count.NONE;

    /// How many rows were read and came out, and how many values were lost on the way.
    record Count(long read, long out, long lost) {
        static final Count NONE = new Count(0, 0, 0);

        Count plus(Count other) {
            return new Count(read + other.read, out + other.out, lost + other.lost);
        }

        String words() {
            String rows = read == out
                    ? Amounts.of(out, "row")
                    : String.format("%,d of %s come%s out", out, Amounts.of(read, "row"), out == 1 ? "s" : "");
            return rows
                    + (lost == 0 ? "" : String.format(", %,d %s lost", lost, lost == 1 ? "value is" : "values are"));
        }
    }

    /// What is told beside the rows, once they are written.
    String told() {
        return shown() + ": " + count.words();
    }

    LoadedRows(PlannedJob call) {
        this.call = call;
        this.words = Optional.empty();
    }

    /// @param words what it is, where it is no call of a loader
    LoadedRows(PlannedJob call, String words) {
        this.call = call;
        this.words = Optional.of(words);
    }

    /// All that the rows depend on: the lines, and the files that are read.
    String key() {
        StringBuilder key = new StringBuilder();
        call.job().lines().forEach(l -> key.append(l.line()).append('\n'));
        call.plan()
                .steps()
                .forEach(s -> key.append(s.after()).append(s.reports()).append('\n'));
        Stream.concat(Stream.of(call.source()), call.others().values().stream()).forEach(source -> {
            key.append(source.options()).append('\n');
            Stream.concat(Stream.of(source.file()), source.files().stream())
                    .distinct()
                    .forEach(f -> key.append(stamp(f)));
        });
        return key.toString();
    }

    private static String stamp(Path file) {
        try {
            return file + " " + Files.size(file) + " " + Files.getLastModifiedTime(file) + "\n";
        } catch (IOException e) {
            return file + "\n";
        }
    }

    @Override
    public Optional<Consent.Place> place() {
        return Optional.empty();
    }

    @Override
    public String shown() {
        if (words.isPresent()) {
            return words.get();
        }
        Line lines = call.job().lines().getLast().line();
        String arguments = lines.blanks().entrySet().stream()
                .map(a -> a.getKey() + " "
                        + a.getValue().texts().map(t -> String.join(", ", t)).orElse("…"))
                .collect(Collectors.joining(", "));
        String loader = TableFix.withoutLinesOf(lines.call());
        return "Given by " + loader + (arguments.isEmpty() ? "" : " (" + arguments + ")");
    }

    @Override
    public void write(Path shelf, Path to) throws IOException {
        try (CopyWriter out = new CopyWriter(to)) {
            out.row(call.plan().columns().stream().map(Column::name).toList());
            count = each(row -> {
                try {
                    out.row(row);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    /// Every row, in order, once it is known that there are all of them: a file that cannot be read
    /// whole, a check in the lines that is broken, or a value that is lost where the call is
    /// strict, is a problem before the first.
    Count each(Consumer<List<@Nullable String>> row) {
        JobChecks.wantReadJobsToHold(call, _ -> {});
        Outcome<Preview> opened = Preview.open(call.source(), Long.MAX_VALUE, Long.MAX_VALUE);
        try (Preview preview = wanted(opened)) {
            preview.careful()
                    .filter(c -> c.badCount() > 0 && !call.source().options().leaveOutBadRows())
                    .ifPresent(c -> {
                        throw new ProblemException(c.problem(call.source()));
                    });
            List<LineEffect> effects = wanted(preview.look(call));
            JobChecks.stop(call, effects).ifPresent(why -> {
                throw new ProblemException(Problem.error(
                        Code.CHECK_BROKEN,
                        call.where(1),
                        call.job().name() + " stops: " + why,
                        "Mend the source, or the lines that are called."));
            });
            preview.eachResult(call, row);
            LineEffect last = effects.getLast();
            return new Count(effects.getFirst().rowsAfter(), last.rowsAfter(), last.valuesLost());
        }
    }

    private static <T> T wanted(Outcome<T> outcome) {
        if (!outcome.isPresent()) {
            throw new ProblemException(outcome.problems().getFirst());
        }
        return outcome.get();
    }
}
