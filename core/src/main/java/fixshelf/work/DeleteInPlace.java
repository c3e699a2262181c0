package fixshelf.work;

import fixshelf.fetch.Consent;
import fixshelf.fetch.ServerAddress;
import fixshelf.output.RowsGone;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.Step;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.OwnFolder;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// A job that only keeps or leaves out rows, done to the table that it reads: what its lines leave
/// out is deleted there.
///
/// @param before how many rows the table holds
/// @param stay how many stay
/// @param first some of the rows that go, as the table has them
/// @param told the statement, and what would happen with it
/// @param sign changes with every row that goes, and with every row of the table
public record DeleteInPlace(
        long before, long stay, List<List<@Nullable String>> first, RowsGone.Told told, String sign, Work work) {
    private static final int SHOWN = 10;

    /// What deleting needs.
    record Work(RowsGone table, RowsGone.Rows all, RowsGone.Rows gone) {}

    /// How many rows go.
    public long gone() {
        return before - stay;
    }

    /// The dry run: the table is read anew, and nothing is changed.
    public static Outcome<DeleteInPlace> look(Shelf shelf, JobPage job) {
        String dataset = FirstLine.dataset(job);
        Datasets.forgetCopy(shelf, dataset);
        return PlannedJob.plan(shelf, job, Map.of()).then(planned -> {
            try {
                return Outcome.of(look(shelf, planned, dataset));
            } catch (ProblemException e) {
                return Outcome.failed(e.problem());
            } catch (IOException e) {
                return Outcome.failed(Problem.about(
                        Code.TARGET_NOT_WRITABLE,
                        job.name(),
                        "The rows that stay cannot be kept for a moment: " + e.getMessage() + ".",
                        "Look at the room on the disk. Nothing was deleted."));
            }
        });
    }

    private static DeleteInPlace look(Shelf shelf, PlannedJob job, String dataset) throws IOException {
        ReadOptions options = shelf.dataset(dataset)
                .map(DatasetPage::options)
                .flatMap(o -> Placeholders.fill(
                                o, PlannedJob.values(shelf, job.job(), Map.of()), Problem.Where.nowhere(dataset))
                        .value())
                .orElse(ReadOptions.of(""));
        RowsGone table = table(shelf, job, options);
        wantOnlyRows(job);
        RowsGone.Rows stay = staying(shelf, job);
        RowsGone.Rows all = new RowsGone.Rows();
        List<List<@Nullable String>> first = new ArrayList<>();
        rows(job.source(), row -> {
            boolean goes = all.addIfMore(row, stay);
            if (goes && first.size() < SHOWN) {
                first.add(row);
            }
        });
        RowsGone.Rows gone;
        try {
            gone = all.without(stay);
        } catch (IllegalArgumentException e) {
            throw refused(
                    job,
                    1,
                    "Rows come out of this job that are not in the table as they are.",
                    "Keep to lines that keep rows or leave them out.");
        }
        return new DeleteInPlace(
                all.size(),
                stay.size(),
                first,
                table.look(gone.size()),
                gone.sign() + all.sign(),
                new Work(table, all, gone));
    }

    /// The table that is read, where its user allows that it is written to.
    private static RowsGone table(Shelf shelf, PlannedJob job, ReadOptions options) {
        switch (options.form().orElse(null)) {
            case ReadOptions.Form.Server form
            when !form.engine().equals("jdbc") && form.query().isEmpty() -> {
                ServerAddress address = ServerAddress.of(options.path(), form.engine());
                wantLeave(shelf, address.place().toWrite());
                return RowsGone.of(address, form);
            }
            case ReadOptions.Form.Database form
            when form.query().isEmpty() -> {
                Path file = shelf.root().resolve(options.path()).normalize();
                Consent.Place.of(shelf.root(), file).ifPresent(p -> wantLeave(shelf, p.toWrite()));
                return RowsGone.of(file, form);
            }
            case null, default ->
                throw refused(
                        job,
                        1,
                        "Rows are deleted from a table of a database, and this job reads something else.",
                        "Let it read a dataset with `kind: postgresql`, `mariadb`, `sqlite` or `duckdb` and a `table`.");
        }
    }

    private static void wantLeave(Shelf shelf, Consent.Place place) {
        Consent.objection(shelf.root(), place).ifPresent(p -> {
            throw new ProblemException(p);
        });
    }

    /// Lines that change what stands in a row, or make rows, say nothing of which rows go.
    private static void wantOnlyRows(PlannedJob job) {
        List<Field> read = job.plan().read().shape().fields();
        if (job.plan().readsTyped()) {
            throw refused(
                    job,
                    1,
                    "The columns of the table get types as they are read, so that its rows could not be found again by what"
                            + " stands in them.",
                    "Read it as texts (`types: texts` in its page), and add columns with types beside them.");
        }
        if (job.plan().readsJob()
                || job.plan().resultLine() != job.plan().steps().size()) {
            throw refused(
                    job,
                    1,
                    "The job reads another job, or its result is not its last line.",
                    "Write a job of its own.");
        }
        for (Step step : job.plan().steps().subList(1, job.plan().steps().size())) {
            boolean rows = step.rows() != Lineage.Rows.MERGED && step.rows() != Lineage.Rows.ANY;
            if (!rows) {
                throw refused(
                        job,
                        step.number(),
                        "This line makes rows, or merges them: which rows of the table go cannot be told from it.",
                        "Keep to lines that keep rows or leave them out.");
            }
            if (!new HashSet<>(step.fields()).containsAll(read)) {
                throw refused(
                        job,
                        step.number(),
                        "This line changes or leaves out columns of the table, so that its rows could not be found again.",
                        "Add new columns instead, or leave the line out of this job.");
            }
        }
    }

    private static ProblemException refused(PlannedJob job, int line, String what, String todo) {
        return new ProblemException(Problem.error(Code.CANNOT_SAY, job.where(line), what, todo));
    }

    /// The rows that come out of the job, with the columns of the table only.
    private static RowsGone.Rows staying(Shelf shelf, PlannedJob job) throws IOException {
        Path file = OwnFolder.file(shelf.root(), "copies", job.job().name() + "-stays.csv");
        try {
            PlannedJob.Target target = new PlannedJob.Target(file, true);
            PlannedJob only =
                    new PlannedJob(job.job(), job.source(), job.plan(), List.of(target), job.others(), job.read());
            Outcome<JobRun.Report> ran = JobRun.run(only, JobRun.Watcher.NONE);
            if (!ran.isPresent()) {
                throw new ProblemException(ran.problems().getFirst());
            }
            for (LineEffect effect : ran.get().effects()) {
                if (effect.cellsChanged() > 0 || effect.valuesLost() > 0 || effect.added() > 0) {
                    throw refused(
                            job,
                            effect.line(),
                            "This line changes cells, so that its rows could not be found again in the table.",
                            "Add new columns instead, or leave the line out of this job.");
                }
            }
            List<Field> read = job.plan().read().shape().fields();
            List<Field> out = job.plan().last().fields();
            boolean single = out.size() == 1;
            ReadOptions options = ReadOptions.of(file.toString()).withNullWords(single ? List.of() : List.of(""));
            RowsGone.Rows stay = new RowsGone.Rows();
            SourceFile result = SourceFile.open(file, options).get();
            rows(result, row -> {
                List<@Nullable String> whole = new ArrayList<>();
                read.forEach(f -> whole.add(row.get(out.indexOf(f))));
                stay.add(whole);
            });
            return stay;
        } finally {
            Files.deleteIfExists(file);
        }
    }

    private interface RowTaker {
        void take(List<@Nullable String> row);
    }

    private static void rows(SourceFile file, RowTaker taker) {
        try (fixshelf.source.SourceSession session = fixshelf.source.SourceSession.open(file, List.of())) {
            session.read(Long.MAX_VALUE, relation -> session.session().each("SELECT * FROM " + relation, cells -> {
                List<@Nullable String> row = new ArrayList<>();
                cells.forEach(c -> row.add(c == null ? null : c.toString()));
                taker.take(row);
            }));
        }
    }

    /// Deletes what was shown. A problem, and nothing deleted, where the table is another by now.
    ///
    /// @param agreed the sign of the dry run that was agreed to
    public Outcome<Long> delete(String agreed) {
        if (!agreed.equals(sign)) {
            return Outcome.failed(Problem.about(
                    Code.SOURCE_CHANGED,
                    agreed,
                    "What would go now is not what was shown: its sign is " + sign + ".",
                    "Nothing was deleted. Look at the rows again, then confirm that sign."));
        }
        try {
            return Outcome.of(work.table().delete(work.all(), work.gone()));
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }
}
