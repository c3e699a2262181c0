package fixshelf.work;

import fixshelf.fetch.Consent;
import fixshelf.fetch.ServerAddress;
import fixshelf.output.TableTarget;
import fixshelf.plan.Line;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.OwnFolder;
import fixshelf.shelf.Shelf;
import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/// Outputs that are tables of databases.
final class OutputTables {
    private OutputTables() {}

    /// A table of a server; empty where a file is meant.
    static Optional<PlannedJob.Target> target(
            Shelf shelf, JobPage job, JobPage.Output output, String path, Map<String, String> values) {
        Optional<String> engine = engine(path);
        if (engine.isEmpty()) {
            return Optional.empty();
        }
        Path sign;
        try {
            sign = OwnFolder.file(shelf.root(), path.replaceAll("[^\\p{L}\\p{N}]+", "-"));
        } catch (IOException e) {
            return Optional.of(new PlannedJob.Target(shelf.root(), true)
                    .refused(Optional.of(Problem.about(
                            Code.TARGET_NOT_WRITABLE,
                            shelf.root().toString(),
                            "The folder .fixshelf of this shelf cannot be used: " + e.getMessage() + ".",
                            "Make it a folder of its own."))));
        }
        PlannedJob.Target plain = new PlannedJob.Target(sign, true);
        if (output.table().isEmpty()) {
            return Optional.of(plain.refused(Optional.of(Problem.about(
                    Code.BAD_FIELD, path, "Which table of " + path + " is written?", "Add `table: visits_clean`."))));
        }
        JobPage.ToTable to = output.table().get();
        Problem.Where where = Problem.Where.nowhere(path);
        Outcome<TableTarget> table = Placeholders.fill(to.table(), values, where)
                .then(name -> Placeholders.fill(to.user(), values, where).then(user -> {
                    try {
                        ServerAddress address = ServerAddress.of(path, engine.get());
                        return Outcome.of(new TableTarget(
                                engine.get(), Optional.of(address), name, mode(to), user, to.passwordFrom()));
                    } catch (ProblemException e) {
                        return Outcome.failed(e.problem());
                    }
                }));
        if (!table.isPresent()) {
            return Optional.of(plain.refused(table.problems().stream().findFirst()));
        }
        PlannedJob.Target target = new PlannedJob.Target(
                        sign.resolveSibling(
                                sign.getFileName() + "-" + table.get().table()),
                        true)
                .into(OutputForm.SERVER, table.get());
        return Optional.of(target.refused(objection(shelf, job, table.get(), values)));
    }

    private static Optional<String> engine(String path) {
        return Stream.of("postgresql", "mariadb")
                .filter(e -> path.startsWith(e + ":"))
                .findFirst();
    }

    /// Where a server is that is written to; empty where a file is meant, or where the address is none.
    static Optional<ServerAddress> address(String path) {
        try {
            return engine(path).map(e -> ServerAddress.of(path, e));
        } catch (ProblemException e) {
            return Optional.empty();
        }
    }

    private static TableTarget.Mode mode(JobPage.ToTable to) {
        return switch (to.mode()) {
            case "replace" -> TableTarget.Mode.REPLACE;
            case "append" -> TableTarget.Mode.APPEND;
            default -> TableTarget.Mode.CREATE;
        };
    }

    /// A table that the shelf reads is not written, and no server without its user's word.
    private static Optional<Problem> objection(
            Shelf shelf, JobPage job, TableTarget target, Map<String, String> values) {
        ServerAddress address = target.server().orElseThrow();
        Map<String, ReadOptions> read = new LinkedHashMap<>();
        shelf.datasets().forEach(d -> read.put("as " + d.name(), Datasets.reads(shelf, d)));
        job.firstLine()
                .filter(l -> l.call().equals(Line.READ_FILE))
                .ifPresent(l -> read.put("in the first line of this job", shelf.options(l)));
        for (Map.Entry<String, ReadOptions> source : read.entrySet()) {
            boolean isRead = Stream.of(values, shelf.settings().values())
                    .anyMatch(v -> isSource(source.getValue(), target, address, v));
            if (isRead) {
                return Optional.of(Problem.about(
                        Code.TARGET_IS_SOURCE,
                        job.name(),
                        "The output would change " + target.shown() + ", which this shelf reads " + source.getKey()
                                + ".",
                        "Write to another table; sources are never written to."));
            }
        }
        return Consent.objection(shelf.root(), address.place().toWrite());
    }

    private static boolean isSource(
            ReadOptions options, TableTarget target, ServerAddress address, Map<String, String> values) {
        if (!(options.form().orElse(null) instanceof ReadOptions.Form.Server form)
                || !form.engine().equals(address.engine())) {
            return false;
        }
        Problem.Where where = Problem.Where.nowhere(options.path());
        Optional<String> table = Placeholders.fill(form.table(), values, where).value();
        Optional<String> read = Placeholders.fill(options.path(), values, where).value();
        try {
            return table.filter(t -> bare(t).equals(bare(target.table()))).isPresent()
                    && read.filter(r ->
                                    ServerAddress.of(r, form.engine()).jdbc().equals(address.jdbc()))
                            .isPresent();
        } catch (ProblemException e) {
            return false;
        }
    }

    private static String bare(String table) {
        return table.replaceFirst("^public\\.", "").toLowerCase(Locale.ROOT);
    }

    /// A table of a database that is a file, where the ending of its name says so.
    static PlannedJob.Target inFile(PlannedJob.Target target, JobPage.Output output) {
        boolean database = target.form().isTable();
        if (database && target.file().toString().chars().anyMatch(c -> "?;#%".indexOf(c) >= 0)) {
            // Behind them a driver would read settings of its own.
            return target.refused(Optional.of(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    target.file().toString(),
                    target.file().getFileName()
                            + " is not written as a database: there is one of the signs ? ; # % in its" + " path.",
                    "Give it, or its folder, a name without them.")));
        }
        if (database == output.table().isPresent()) {
            return output.table()
                    .map(to -> target.into(
                            target.form(),
                            new TableTarget(
                                    target.form() == OutputForm.SQLITE ? "sqlite" : "duckdb",
                                    Optional.empty(),
                                    to.table(),
                                    mode(to),
                                    "",
                                    "")))
                    .orElse(target);
        }
        return target.refused(Optional.of(
                database
                        ? Problem.about(
                                Code.BAD_FIELD,
                                target.file().toString(),
                                "Which table of " + target.file().getFileName() + " is written?",
                                "Add `table: visits_clean`.")
                        : Problem.about(
                                Code.BAD_FIELD,
                                target.file().toString(),
                                target.file().getFileName() + " is no database, and has no table.",
                                "Leave `table` out, or end the name in .sqlite or .duckdb.")));
    }
}
