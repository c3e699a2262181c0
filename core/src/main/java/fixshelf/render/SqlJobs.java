package fixshelf.render;

import fixshelf.language.Expr;
import fixshelf.plan.Line;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.type.Column;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// A job as one query: a named table for each line, each over the one before.
final class SqlJobs {
    private final SqlLanguage language;
    private final JobCode job;
    private final boolean withPlaces;
    private final String place;

    private SqlJobs(SqlLanguage language, JobCode job, boolean withPlaces) {
        this.language = language;
        this.job = job;
        this.withPlaces = withPlaces;
        this.place = job.placeName();
    }

    /// The query, to be read: with what it asks for, and the words of each line.
    static Outcome<String> write(SqlLanguage language, JobCode job) {
        SqlJobs jobs = new SqlJobs(language, job, job.needsPlaces());
        String asks = Comments.line(
                "--",
                "Reads the table " + job.source() + ", whose columns are text"
                        + (jobs.withPlaces
                                ? ", and " + jobs.place + " numbers its rows as they stand in the source"
                                : "")
                        + ".");
        return jobs.query(List.of()).map(q -> Comments.line("--", job.name() + ": " + job.about()) + asks + q + ";\n");
    }

    /// The query, to be run: `before` are the tables that it stands on, and its rows come in the order of the source.
    static Outcome<String> query(SqlLanguage language, JobCode job, List<String> before) {
        return new SqlJobs(language, job, true).query(before);
    }

    private Outcome<String> query(List<String> before) {
        List<String> from = new ArrayList<>(List.of(language.identifier(job.source())));
        Outcome<List<String>> lines = JobLines.write(job, "--", line -> {
            String query = select(line.step(), from.getLast());
            String name = job.free("line_" + line.number());
            from.add(name);
            return name + " AS (\n  " + Sql.indent(query, 2) + "\n)";
        });
        return lines.map(written -> {
            List<String> tables = new ArrayList<>(before);
            tables.addAll(written);
            String with = tables.isEmpty() ? "" : "WITH\n" + String.join(",\n", tables) + "\n";
            String order = withPlaces ? "\nORDER BY " + language.identifier(place) : "";
            return with + "SELECT " + names(job.result()) + "\nFROM " + from.getLast() + order;
        });
    }

    private String select(Step step, String from) {
        List<String> columns = new ArrayList<>();
        if (withPlaces) {
            columns.add(language.identifier(place));
        }
        switch (step) {
            case Step.Read read -> read.columns().forEach(c -> columns.add(language.identifier(c.name())));
            case Step.Compute compute -> {
                Map<String, String> values = new HashMap<>();
                compute.computed().forEach(c -> values.put(c.column(), value(c.value())));
                compute.columns().forEach(c -> columns.add(named(values.get(c.name()), c.name())));
            }
            case Step.Project project ->
                project.kept()
                        .forEach(k -> columns.add(
                                k.was().equals(k.name())
                                        ? language.identifier(k.name())
                                        : named(language.identifier(k.was()), k.name())));
            case Step.KeepOne keep -> {
                keep.columns().forEach(c -> columns.add(language.identifier(c.name())));
                String survivor = language.identifier(job.free("survivor"));
                return "SELECT " + String.join(", ", columns) + "\nFROM (SELECT " + String.join(", ", columns)
                        + ",\n    row_number() OVER (PARTITION BY " + keys(keep) + "\n      ORDER BY " + order(keep)
                        + ") AS " + survivor + "\n  FROM " + from + ") placed\nWHERE " + survivor + " = 1";
            }
        }
        String separator = step instanceof Step.Compute ? ",\n  " : ", ";
        return "SELECT " + String.join(separator, columns) + "\nFROM " + from;
    }

    private String value(Expr expr) {
        Outcome<String> code = language.expression(expr);
        return code.value()
                .orElseThrow(() -> new ProblemException(code.problems().getFirst()));
    }

    private String named(@Nullable String value, String name) {
        return value == null ? language.identifier(name) : value + " AS " + language.identifier(name);
    }

    private String names(List<Column> columns) {
        return columns.stream().map(c -> language.identifier(c.name())).collect(Collectors.joining(", "));
    }

    private String keys(Step.KeepOne keep) {
        return keep.keys().stream()
                .map(k -> language.grouped(column(k, keep)).text())
                .collect(Collectors.joining(", "));
    }

    /// The one that stays comes first: by the order columns, nulls before all others, then by place in the source.
    private String order(Step.KeepOne keep) {
        String direction = keep.keep() == Line.Keep.LAST ? " DESC" : "";
        List<String> parts = new ArrayList<>();
        for (String column : keep.order()) {
            parts.add("CASE WHEN " + language.identifier(column) + " IS NULL THEN 0 ELSE 1 END" + direction);
            parts.add(language.sorted(column(column, keep)).text() + direction);
        }
        parts.add(language.identifier(place) + direction);
        return String.join(", ", parts);
    }

    private static Expr.Name column(String name, Step.KeepOne keep) {
        Column column = keep.columns().stream()
                .filter(c -> c.name().equals(name))
                .findFirst()
                .orElseThrow();
        return new Expr.Name(column.name(), column.type());
    }
}
