package fixshelf.render.sql;

import fixshelf.plan.Operation;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.render.Comments;
import fixshelf.render.JobCode;
import fixshelf.table.Relation;
import fixshelf.type.Column;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/// A job as one query: named tables for each line, each over the ones before.
final class SqlJobs {
    private final SqlLanguage language;
    private final JobCode job;
    private final boolean withPlaces;
    private final String place;
    private final StringBuilder checks = new StringBuilder();

    private SqlJobs(SqlLanguage language, JobCode job, boolean withPlaces) {
        this.language = language;
        this.job = job;
        this.withPlaces = withPlaces;
        this.place = job.placeName();
    }

    /// The query, to be read: with what it asks for, and the words of each line.
    static Outcome<String> write(SqlLanguage language, JobCode job) {
        return write(language, job, "");
    }

    /// The same as a view, called like the job: a definition, and no rows.
    static Outcome<String> view(SqlLanguage language, JobCode job) {
        return write(
                language,
                job,
                Comments.line(
                                "--",
                                "A definition and no rows: whoever reads the view needs what it reads, and sees its rows as they are then.")
                        + "CREATE VIEW " + language.identifier(job.name()) + " AS\n");
    }

    private static Outcome<String> write(SqlLanguage language, JobCode job, String begins) {
        SqlJobs jobs = new SqlJobs(language, job, job.needsPlaces());
        String tables = (job.sources().size() == 1 ? "the table " : "the tables ") + job.sourceNames();
        String asks = Comments.line(
                "--",
                "Reads " + tables + ", whose columns are text"
                        + (jobs.withPlaces
                                ? ", and " + jobs.place + " numbers "
                                        + (job.sources().size() == 1 ? "its" : "their")
                                        + " rows as they stand in the source"
                                : "")
                        + ".");
        return jobs.query(List.of())
                .map(q -> Comments.line("--", job.name() + ": " + job.about()) + asks + begins + q + ";\n"
                        + jobs.checks());
    }

    /// The query, to be run: `before` are the tables that it stands on, and its rows come in their order.
    static Outcome<String> query(SqlLanguage language, JobCode job, List<String> before) {
        return new SqlJobs(language, job, true).query(before);
    }

    private Outcome<String> query(List<String> before) {
        Optional<String> places = withPlaces ? Optional.of(place) : Optional.empty();
        Map<Integer, String> results =
                new HashMap<>(Map.of(1, language.identifier(job.first().name())));
        RelationSql sql = new RelationSql(
                language,
                RelationSql.Manner.named(places),
                base -> base instanceof Relation.Result(int line, var _)
                        ? results.get(line)
                        : language.identifier(((Relation.Source) base).name()));
        List<String> tables = new ArrayList<>(before);
        List<Problem> problems = new ArrayList<>();
        checks.setLength(0);
        for (JobCode.Line line : job.lines()) {
            int known = sql.queries().size();
            try {
                if (line.step().after().shape().fields().isEmpty()) {
                    throw language.cannot("it has no tables without columns.", "Keep a column.");
                }
                String name = job.free("line_" + line.number());
                results.put(line.number(), sql.write(line.step().after(), name));
                List<String> made = new ArrayList<>(
                        sql.queries().subList(known, sql.queries().size()));
                if (!made.isEmpty()) {
                    made.set(0, Comments.line("--", line.number() + ". " + line.sentence()) + made.getFirst());
                }
                tables.addAll(made);
                int all = tables.size() - before.size();
                if (all > language.mostNamedTables()) {
                    throw language.cannot(
                            "a query of it names at most " + language.mostNamedTables()
                                    + " tables, and with this line there are " + all + ".",
                            "Let a job of its own do some of the lines, and go on from the table that it wrote.");
                }
                check(line, sql, tables);
            } catch (ProblemException e) {
                problems.add(JobCode.refused(line, e.problem()));
                results.put(line.number(), results.get(line.number() - 1));
            }
        }
        if (!problems.isEmpty()) {
            return Outcome.failed(problems);
        }
        String last =
                results.get(job.lines().isEmpty() ? 1 : job.lines().getLast().number());
        String with = tables.isEmpty() ? "" : "WITH\n" + String.join(",\n", tables) + "\n";
        String order = withPlaces ? "\nORDER BY " + language.identifier(place) : "";
        return Outcome.of(with + "SELECT " + names(job.result()) + "\nFROM " + last + order);
    }

    /// The rows that break what a run makes sure of, as a query of their own.
    private void check(JobCode.Line line, RelationSql sql, List<String> tables) {
        for (Operation.Report report : line.step().reports()) {
            if (report.breaks()) {
                int known = sql.queries().size();
                String broken = sql.write(report.relation(), job.free("broken_" + line.number()));
                List<String> all = new ArrayList<>(tables);
                all.addAll(sql.queries().subList(known, sql.queries().size()));
                checks.append(Comments.line("--", "What breaks line " + line.number() + ": " + line.sentence()))
                        .append(all.isEmpty() ? "" : "WITH\n" + String.join(",\n", all) + "\n")
                        .append("SELECT ")
                        .append(names(report.relation().shape().columns()))
                        .append("\nFROM ")
                        .append(broken)
                        .append(";\n");
            }
        }
    }

    private String checks() {
        return checks.toString();
    }

    private String names(List<Column> columns) {
        return columns.stream().map(c -> language.identifier(c.name())).collect(Collectors.joining(", "));
    }
}
