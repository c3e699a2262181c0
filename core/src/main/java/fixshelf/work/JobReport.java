package fixshelf.work;

import fixshelf.render.Language;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/// Results of jobs as a board: jobs down, languages across.
public record JobReport(List<JobParity> results) {
    public JobReport {
        results = List.copyOf(results);
    }

    /// Rows of cells, the first is the heading.
    public List<List<String>> table() {
        List<Language> languages =
                results.stream().map(JobParity::language).distinct().toList();
        List<List<String>> rows = new ArrayList<>();
        List<String> heading = new ArrayList<>(List.of("name"));
        languages.forEach(l -> heading.add(l.title()));
        rows.add(heading);
        results.stream().map(JobParity::job).distinct().forEach(job -> {
            List<String> row = new ArrayList<>(List.of(job));
            results.stream().filter(r -> r.job().equals(job)).forEach(r -> row.add(cell(r)));
            rows.add(row);
        });
        return rows;
    }

    private static String cell(JobParity result) {
        return result.verdict() instanceof JobParity.Same ? "=" : result.mark();
    }

    /// A sentence for each cell that is not `=`.
    public List<String> notes() {
        return results.stream()
                .filter(r -> !(r.verdict() instanceof JobParity.Same))
                .map(r -> r.job() + " in " + r.language().title() + ": " + r.detail())
                .toList();
    }

    /// How many of the cells are what, in words.
    public String summary() {
        Map<String, Long> counts =
                results.stream().collect(Collectors.groupingBy(JobParity::word, Collectors.counting()));
        return String.format(
                "%d same, %d differ, %d cannot be said, %d not run",
                counts.getOrDefault("same", 0L),
                counts.getOrDefault("differs", 0L),
                counts.getOrDefault("cannot_say", 0L),
                counts.getOrDefault("not_run", 0L));
    }

    /// A section of a page on operations and table fixes; empty where there is none.
    public String markdownOfOperations() {
        return markdown(
                "Operations and table fixes",
                "Each example and case, run in each language and compared cell by cell, in order.");
    }

    /// A section of a page on jobs; empty where there is none.
    public String markdown() {
        return markdown(
                "Jobs",
                "Each job as code of each language, run over the first " + JobParity.ROWS
                        + " rows of its source and compared cell by cell with what it gives here.");
    }

    private String markdown(String title, String about) {
        if (results.isEmpty()) {
            return "";
        }
        StringBuilder out = new StringBuilder("\n## " + title + "\n\n" + about + "\n\n");
        List<List<String>> table = table();
        for (int i = 0; i < table.size(); i++) {
            out.append("| ").append(String.join(" | ", table.get(i))).append(" |\n");
            out.append(i == 0 ? "|" + "---|".repeat(table.getFirst().size()) + "\n" : "");
        }
        notes().forEach(n -> out.append("\n- ").append(n));
        return out.append(notes().isEmpty() ? "" : "\n").toString();
    }
}
