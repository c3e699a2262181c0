package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Moves;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.Locale;
import java.util.stream.Stream;

/// Output files that appear whole or not at all: each is written beside its target and moved into place at the end.
final class Outputs {
    private static final String PART = ".fixshelf-part";

    private Outputs() {}

    /// A target, and the file beside it that is written first.
    record Pending(PlannedJob.Target target, Path part) {}

    /// Looks at every target before anything is read.
    static Outcome<List<Pending>> prepare(PlannedJob job) {
        List<Problem> problems = new ArrayList<>();
        List<Pending> pending = new ArrayList<>();
        Set<Path> seen = new HashSet<>();
        for (PlannedJob.Target target : job.targets()) {
            Path file = target.file();
            if (!seen.add(file.toAbsolutePath().normalize())) {
                problems.add(Problem.about(
                        Code.TARGET_EXISTS,
                        file.toString(),
                        "Two outputs of this job go to " + file.getFileName() + ".",
                        "Give one of them another name."));
            } else if (target.objection().isPresent()) {
                problems.add(target.objection().get());
            } else if (Files.exists(file) && !target.replace()) {
                problems.add(Problem.about(
                        Code.TARGET_EXISTS,
                        file.toString(),
                        "There is a file " + file.getFileName() + " already.",
                        "Allow it to be replaced (replace: true), or write to another file."));
            } else {
                prepare(target, pending, problems);
            }
        }
        return problems.isEmpty() ? Outcome.of(pending) : Outcome.failed(problems);
    }

    private static void prepare(PlannedJob.Target target, List<Pending> pending, List<Problem> problems) {
        Path folder = target.file().toAbsolutePath().getParent();
        try {
            Files.createDirectories(folder);
            removeLeftBehind(target.file(), folder);
            Path part = Files.createTempFile(folder, "." + target.file().getFileName(), PART);
            Files.delete(part);
            pending.add(new Pending(target, part));
        } catch (IOException e) {
            problems.add(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    target.file().toString(),
                    "The folder " + folder + " cannot be written to: "
                            + e.getClass().getSimpleName() + ".",
                    "Look at its rights, or write to another folder."));
        }
    }

    /// What a run that was killed left beside the target.
    private static void removeLeftBehind(Path target, Path folder) throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.toList()) {
                String name = file.getFileName().toString();
                if (name.startsWith("." + target.getFileName()) && name.endsWith(PART)) {
                    Files.deleteIfExists(file);
                }
            }
        }
    }

    /// The statement that writes a query into the file beside the target.
    static String copy(Pending output, String query) {
        String name = output.target().file().toString().toLowerCase(Locale.ROOT);
        String format = output.target().parquet()
                ? "FORMAT parquet, COMPRESSION zstd"
                : "FORMAT csv, HEADER true, DELIMITER " + (name.endsWith(".tsv") ? "'\t'" : "','");
        return "COPY (" + query + ") TO " + DuckSession.text(output.part().toString()) + " (" + format + ")";
    }

    /// Makes sure that every part is on disk, then moves them all into place.
    static List<Path> keep(List<Pending> pending) throws IOException {
        List<Path> files = new ArrayList<>();
        for (Pending output : pending) {
            try (FileChannel channel = FileChannel.open(output.part(), StandardOpenOption.WRITE)) {
                channel.force(true);
            }
        }
        List<Moves.Move> moves = pending.stream()
                .map(p -> new Moves.Move(p.part(), p.target().file()))
                .toList();
        Moves.together(moves);
        pending.forEach(p -> files.add(p.target().file()));
        return files;
    }

    static void discard(List<Pending> pending) {
        for (Pending output : pending) {
            try {
                Files.deleteIfExists(output.part());
            } catch (IOException e) {
                System.getLogger(Outputs.class.getName())
                        .log(System.Logger.Level.DEBUG, "left behind: " + output.part(), e);
            }
        }
    }
}
