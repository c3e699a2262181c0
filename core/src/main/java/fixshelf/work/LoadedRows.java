package fixshelf.work;

import fixshelf.fetch.Consent;
import fixshelf.fetch.CopyWriter;
import fixshelf.fetch.Source;
import fixshelf.plan.Line;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
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
    private Count count = Count.NONE;

    /// How many rows were read and came out, and how many values were lost on the way.
    record Count(long read, long out, long lost) {
        static final Count NONE = new Count(0, 0, 0);

        Count plus(Count other) {
            return new Count(read + other.read, out + other.out, lost + other.lost);
        }

        String words() {
            String rows = read == out
                    ? String.format("%,d %s", out, out == 1 ? "row" : "rows")
                    : String.format("%,d of %,d rows come out", out, read);
            return rows
                    + (lost == 0 ? "" : String.format(", %,d %s lost", lost, lost == 1 ? "value is" : "values are"));
        }
    }

    /// What is told beside the rows, once they are written.
    String told() {
        return count.words();
    }

    LoadedRows(PlannedJob call) {
        this.call = call;
    }

    /// All that the rows depend on: the lines, and the files that are read.
    String key() {
        StringBuilder key = new StringBuilder();
        call.job().lines().forEach(l -> key.append(l.line()).append('\n'));
        call.plan().steps().forEach(s -> key.append(s.after()).append('\n'));
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
        Line lines = call.job().lines().getLast().line();
        String arguments = lines.blanks().entrySet().stream()
                .map(a -> a.getKey() + " "
                        + a.getValue().texts().map(t -> String.join(", ", t)).orElse("…"))
                .collect(Collectors.joining(", "));
        String loader = lines.call().replaceFirst("^lines of ", "");
        return "Given by " + loader + (arguments.isEmpty() ? "" : " (" + arguments + ")");
    }

    /// Why there are no rows: a check in the lines of the loader is broken, or the file cannot be read whole.
    static Optional<Problem> objection(PlannedJob call) {
        Outcome<Boolean> whole = call.source().copied().isPresent()
                ? Outcome.of(true)
                : Preview.open(call.source(), Long.MAX_VALUE, Long.MAX_VALUE).then(preview -> {
                    try (preview) {
                        return broken(call, preview)
                                .map(Outcome::<Boolean>failed)
                                .orElse(Outcome.of(true));
                    }
                });
        if (!whole.isPresent()) {
            return Optional.of(whole.problems().getFirst());
        }
        return JobChecks.stop(call)
                .map(why -> Problem.error(
                        Code.CHECK_BROKEN,
                        call.where(1),
                        call.job().name() + " stops: " + why,
                        "Mend the source, or the lines of the loader."));
    }

    @Override
    public void write(Path shelf, Path to) throws IOException {
        objection(call).ifPresent(p -> {
            throw new ProblemException(p);
        });
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

    private static Optional<Problem> broken(PlannedJob call, Preview preview) {
        return preview.careful()
                .filter(c -> c.badCount() > 0 && !call.source().options().leaveOutBadRows())
                .map(c -> c.problem(call.source()));
    }

    /// Every row, in order.
    Count each(Consumer<List<@Nullable String>> row) {
        Outcome<Preview> opened = Preview.open(call.source(), Long.MAX_VALUE, Long.MAX_VALUE);
        if (!opened.isPresent()) {
            throw new ProblemException(opened.problems().getFirst());
        }
        try (Preview preview = opened.get()) {
            broken(call, preview).ifPresent(p -> {
                throw new ProblemException(p);
            });
            preview.eachResult(call, row);
            Outcome<List<LineEffect>> effects = preview.look(call);
            if (!effects.isPresent()) {
                throw new ProblemException(effects.problems().getFirst());
            }
            LineEffect last = effects.get().getLast();
            return new Count(effects.get().getFirst().rowsAfter(), last.rowsAfter(), last.valuesLost());
        }
    }
}
