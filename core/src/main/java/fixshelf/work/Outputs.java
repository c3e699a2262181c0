package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Rows;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Moves;
import fixshelf.table.Field;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
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

    /// The statement that writes a query into the file beside the target, for forms that the engine writes.
    static String copy(Pending output, String query) {
        return "COPY (" + query + ") TO " + DuckSession.text(output.part().toString()) + " ("
                + output.target().form().options() + ")";
    }

    /// Writes rows into the file beside the target.
    ///
    /// @param from what gives the fields, called by their keys, to be put behind FROM
    static void write(Pending output, DuckSession session, List<Field> fields, String from) {
        OutputForm form = output.target().form();
        Path file = output.target().file();
        String keys = "SELECT " + Rows.keys(fields) + " FROM " + from;
        switch (form) {
            case WORKBOOK -> new WorkbookOutput(session, file, fields, keys).write(output.part());
            case JSON, JSON_LINES ->
                new JsonOutput(session, file, fields, keys, form == OutputForm.JSON).write(output.part());
            case COMMAS, TABS, PARQUET -> session.run(copy(output, "SELECT " + Rows.named(fields) + " FROM " + from));
        }
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
