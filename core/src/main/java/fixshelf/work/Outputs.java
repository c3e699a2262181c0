package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Rows;
import fixshelf.output.DatabaseTable;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.Moves;
import fixshelf.table.Field;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/// Output files that appear whole or not at all: each is written beside its target and moved into place at the end.
final class Outputs {
    private static final String PART = ".fixshelf-part";

    private Outputs() {}

    /// A target, and the file beside it that is written first.
    ///
    /// @param table the table of a server, which nobody sees changed before all is written
    /// @param book the workbook that is being written, which several outputs may share
    /// @param notes what is to be told of it, once it is written
    record Pending(
            PlannedJob.Target target,
            Path part,
            Optional<DatabaseTable> table,
            Optional<WorkbookFile> book,
            List<String> notes) {
        /// All files that a session writes for it.
        List<Path> files() {
            return List.of(part, scratch());
        }

        Path scratch() {
            return part.resolveSibling(part.getFileName() + ".rows");
        }
    }

    /// Looks at every target before anything is read.
    static Outcome<List<Pending>> prepare(PlannedJob job) {
        List<Problem> problems = new ArrayList<>();
        List<Pending> pending = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        for (PlannedJob.Target target : job.targets()) {
            Path file = target.file();
            boolean again = !seen.add(
                    target.table().map(t -> t.table().toLowerCase(Locale.ROOT)).orElse("")
                            + '\n'
                            + target.sheetName().toLowerCase(Locale.ROOT)
                            + '\n'
                            + file.toAbsolutePath().normalize());
            if (again) {
                problems.add(Problem.about(
                        Code.TARGET_EXISTS,
                        file.toString(),
                        "Two outputs of this job go to " + target.shown() + ".",
                        "Give one of them another name."));
            } else if (lacksColumns(job, target)) {
                problems.add(Problem.about(
                        Code.TARGET_NOT_WRITABLE,
                        file.toString(),
                        "There is no column for " + target.shown() + ", and a table without columns is no output.",
                        "Keep a column, or write the table of another line."));
            } else if (target.objection().isPresent()) {
                problems.add(target.objection().get());
            } else if (Files.exists(file) && !target.replace() && target.table().isEmpty()) {
                problems.add(Problem.about(
                        Code.TARGET_EXISTS,
                        file.toString(),
                        "There is a file " + file.getFileName() + " already.",
                        "Allow it to be replaced (replace: true), or write to another file."));
            } else {
                prepare(target, sheets(job, file), pending, problems);
            }
        }
        if (!problems.isEmpty()) {
            discard(pending);
            return Outcome.failed(problems);
        }
        return Outcome.of(pending);
    }

    private static boolean lacksColumns(PlannedJob job, PlannedJob.Target target) {
        return target.report().isEmpty()
                ? job.plan().last().fields().isEmpty()
                : target.report().get().report().relation().shape().fields().isEmpty();
    }

    /// The sheets of a workbook, in the order of the outputs.
    private static List<String> sheets(PlannedJob job, Path file) {
        return job.targets().stream()
                .filter(t -> t.file().equals(file))
                .map(PlannedJob.Target::sheetName)
                .distinct()
                .toList();
    }

    private static void prepare(
            PlannedJob.Target target, List<String> sheets, List<Pending> pending, List<Problem> problems) {
        Path folder = target.file().toAbsolutePath().getParent();
        try {
            Files.createDirectories(folder);
            Optional<Pending> shared = pending.stream()
                    .filter(p -> p.target().file().equals(target.file()))
                    .findFirst();
            if (shared.isEmpty()) {
                removeLeftBehind(target.file(), folder);
            }
            Path part = shared.isPresent()
                    ? shared.get().part()
                    : Files.createTempFile(folder, "." + target.file().getFileName(), PART);
            try {
                Optional<WorkbookFile> book = shared.flatMap(Pending::book);
                if (book.isEmpty()) {
                    Files.deleteIfExists(part);
                    book = target.form() == OutputForm.WORKBOOK
                            ? Optional.of(new WorkbookFile(part, sheets))
                            : Optional.empty();
                }
                pending.add(new Pending(target, part, table(target, part), book, new ArrayList<>()));
            } catch (ProblemException e) {
                Files.deleteIfExists(part);
                throw e;
            }
        } catch (ProblemException e) {
            problems.add(e.problem());
        } catch (IOException e) {
            problems.add(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    target.file().toString(),
                    "The folder " + folder + " cannot be written to: "
                            + e.getClass().getSimpleName() + ".",
                    "Look at its rights, or write to another folder."));
        }
    }

    /// A table of a server is held open until all outputs are written. One of a file is changed in
    /// a copy of that file, so that it comes into place together with the others.
    private static Optional<DatabaseTable> table(PlannedJob.Target target, Path part) throws IOException {
        if (target.table().isEmpty()) {
            return Optional.empty();
        }
        if (target.form() == OutputForm.SERVER) {
            return Optional.of(DatabaseTable.open(target.table().get(), part, ""));
        }
        if (Files.exists(target.file())) {
            wantAlone(target);
            Files.copy(target.file(), part, StandardCopyOption.COPY_ATTRIBUTES);
        }
        open(target, part).close();
        return Optional.empty();
    }

    private static DatabaseTable open(PlannedJob.Target target, Path part) {
        return DatabaseTable.open(
                target.table().orElseThrow(), part, target.file().getFileName().toString());
    }

    /// What another program has not put into the file yet would not be in the copy.
    private static void wantAlone(PlannedJob.Target target) {
        for (String suffix : List.of("-wal", "-journal", ".wal")) {
            Path beside = target.file().resolveSibling(target.file().getFileName() + suffix);
            if (Files.exists(beside)) {
                throw new ProblemException(Problem.about(
                        Code.TARGET_NOT_WRITABLE,
                        target.file().toString(),
                        "Another program has " + target.file().getFileName() + " open: there is " + beside.getFileName()
                                + " beside it.",
                        "Close it there, then run again."));
            }
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
                + output.target().form().options(output.target().text()) + ")";
    }

    /// The fields under their names, for such a statement.
    static String named(Pending output, List<Field> fields) {
        return TextOutput.named(output.target().text(), fields);
    }

    /// What is left to do after such a statement.
    static void finish(Pending output) {
        PlannedJob.Target target = output.target();
        TextOutput.rewrite(target.text(), output.part(), output.scratch(), target.file(), target.shown());
    }

    /// Writes rows into the file beside the target.
    ///
    /// @param from what gives the fields, called by their keys, to be put behind FROM
    static void write(Pending output, DuckSession session, List<Field> fields, String from) {
        OutputForm form = output.target().form();
        Path file = output.target().file();
        String keys = "SELECT " + Rows.keys(fields) + " FROM " + from;
        switch (form) {
            case SERVER -> output.table().orElseThrow().write(session, fields, keys, output.scratch());
            case SQLITE, DUCKDB -> {
                try (DatabaseTable table = open(output.target(), output.part())) {
                    table.write(session, fields, keys, output.scratch());
                    table.commit();
                }
            }
            case WORKBOOK -> {
                PlannedJob.Target target = output.target();
                WorkbookOutput sheet = new WorkbookOutput(
                        session, file, fields, keys, target.sheet().asText());
                sheet.write(output.book().orElseThrow().sheet(target.sheetName()));
                if (sheet.texts() > 0) {
                    output.notes()
                            .add(String.format(
                                    "%,d %s in %s, as a workbook cannot hold %s.",
                                    sheet.texts(),
                                    sheet.texts() == 1 ? "value is a text" : "values are texts",
                                    target.shown(),
                                    sheet.texts() == 1 ? "it" : "them"));
                }
            }
            case DEFINITION -> definition(output);
            case JSON, JSON_LINES ->
                new JsonOutput(session, file, fields, keys, form == OutputForm.JSON).write(output.part());
            case COMMAS, TABS, PARQUET -> {
                session.run(copy(output, "SELECT " + named(output, fields) + " FROM " + from));
                finish(output);
            }
        }
    }

    private static void definition(Pending output) {
        try {
            Files.writeString(output.part(), output.target().definition());
            output.notes()
                    .add(output.target().shown()
                            + " holds a definition and no rows: whoever gets it needs the tables that it reads.");
        } catch (IOException e) {
            throw new ProblemException(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    output.target().file().toString(),
                    output.target().shown() + " could not be written: " + e.getMessage() + ".",
                    "Look at the room on the disk."));
        }
    }

    /// Makes sure that every part is on disk, then moves them all into place.
    static List<Path> keep(List<Pending> pending) throws IOException {
        List<Pending> inFiles = pending.stream()
                .filter(p -> p.target().form() != OutputForm.SERVER)
                .toList();
        for (Pending output : inFiles) {
            if (output.book().isPresent()) {
                output.book().get().close();
            }
            try (FileChannel channel = FileChannel.open(output.part(), StandardOpenOption.WRITE)) {
                channel.force(true);
            }
        }
        // A server can still refuse; files that are written cannot.
        pending.forEach(p -> p.table().ifPresent(DatabaseTable::commit));
        Moves.together(inFiles.stream()
                .map(p -> new Moves.Move(p.part(), p.target().file()))
                .distinct()
                .toList());
        return inFiles.stream().map(p -> p.target().file()).distinct().toList();
    }

    static void discard(List<Pending> pending) {
        for (Pending output : pending) {
            output.table().ifPresent(DatabaseTable::close);
            try {
                if (output.book().isPresent()) {
                    output.book().get().close();
                }
                Files.deleteIfExists(output.part());
                Files.deleteIfExists(output.scratch());
                Files.deleteIfExists(output.part().resolveSibling(output.part().getFileName() + ".wal"));
            } catch (IOException e) {
                System.getLogger(Outputs.class.getName())
                        .log(System.Logger.Level.DEBUG, "left behind: " + output.part(), e);
            }
        }
    }
}
