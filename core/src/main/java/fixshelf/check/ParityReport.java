package fixshelf.check;

import fixshelf.check.ParityResult.CannotSay;
import fixshelf.check.ParityResult.Differs;
import fixshelf.check.ParityResult.NotRun;
import fixshelf.check.ParityResult.Same;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.render.Comments;
import fixshelf.render.Language;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/// The results of a check as a board: subjects down, languages across.
///
/// @param values made-up rows for each subject
public record ParityReport(List<ParityResult> results, int values, long seed) {
    public ParityReport {
        results = List.copyOf(results);
    }

    public List<Language> languages() {
        return results.stream().map(ParityResult::language).distinct().toList();
    }

    public List<Subject> subjects() {
        return results.stream().map(ParityResult::subject).distinct().toList();
    }

    public Optional<ParityResult> result(Subject subject, Language language) {
        return results.stream()
                .filter(r -> r.subject().equals(subject) && r.language() == language)
                .findFirst();
    }

    /// Rows of cells, the first is the heading.
    public List<List<String>> table() {
        List<List<String>> rows = new ArrayList<>();
        List<String> heading = new ArrayList<>(List.of(""));
        languages().forEach(l -> heading.add(l.title()));
        rows.add(heading);
        for (Subject subject : subjects()) {
            List<String> row = new ArrayList<>(List.of(subject.name()));
            languages()
                    .forEach(l ->
                            row.add(result(subject, l).map(ParityReport::cell).orElse("")));
            rows.add(row);
        }
        return rows;
    }

    private static String cell(ParityResult result) {
        return switch (result.verdict()) {
            case Same(int _, int beyond) -> beyond == 0 ? "=" : "= in range";
            case Differs _ -> result.mark();
            case CannotSay _ -> "cannot say it";
            case NotRun _ -> "not run";
        };
    }

    /// What stands behind the cells that are not plain: each reason once, with how many subjects it is about.
    public List<String> notes() {
        Map<String, Set<String>> reasons = new LinkedHashMap<>();
        for (ParityResult result : results) {
            boolean plain = result.verdict() instanceof Same(int _, int beyond) && beyond == 0;
            if (plain) {
                continue;
            }
            String about =
                    switch (result.verdict()) {
                        case Same _ -> "some values are beyond its range and refused by name";
                        case Differs _ -> result.subject().name() + " of " + result.detail();
                        case CannotSay(String why) -> why;
                        case NotRun(String why) -> "not run: " + why;
                    };
            reasons.computeIfAbsent(result.language().title() + ": " + about, _ -> new LinkedHashSet<>())
                    .add(result.subject().name());
        }
        return reasons.entrySet().stream()
                .map(e -> e.getKey()
                        + (e.getValue().size() > 1 ? " (" + e.getValue().size() + " times)" : ""))
                .toList();
    }

    public String summary() {
        long differ = results.stream().filter(ParityResult::differs).count();
        long same = results.stream().filter(r -> r.verdict() instanceof Same).count();
        long unsaid =
                results.stream().filter(r -> r.verdict() instanceof CannotSay).count();
        long notRun =
                results.stream().filter(r -> r.verdict() instanceof NotRun).count();
        return same + " same, " + differ + " differ, " + unsaid + " cannot be said, " + notRun + " not run";
    }

    /// The board as a page.
    public String markdown() {
        StringBuilder out = new StringBuilder("# Parity\n\n");
        out.append("Each fix and each example of a catalogue function, run in every language that is here and compared")
                .append(" with DuckDB, row by row: its cases, the edges of its types, and ")
                .append(String.format("%,d", values))
                .append(" made-up rows, seed ")
                .append(seed)
                .append(". `=` is the same on every row.\n\n");
        for (Language language : languages()) {
            out.append("- ").append(language.title()).append(": ");
            out.append(FixEngines.of(language)
                            .map(FixEngine::presence)
                            .map(FixEngine.Presence::sentence)
                            .orElse("not run here"))
                    .append('\n');
        }
        out.append('\n').append(summary()).append(".\n\n");
        List<List<String>> table = table();
        out.append(line(table.getFirst()))
                .append("|")
                .append("---|".repeat(table.getFirst().size()))
                .append('\n');
        table.stream().skip(1).forEach(row -> out.append(line(named(row))));
        List<String> notes = notes();
        if (!notes.isEmpty()) {
            out.append("\n## Notes\n\n");
            notes.forEach(n -> out.append("- ").append(plain(n)).append('\n'));
        }
        return out.toString();
    }

    private static List<String> named(List<String> row) {
        List<String> cells = new ArrayList<>(row);
        String name = Comments.words(cells.getFirst()).replace("|", "\\|");
        String marks = name.contains("`") ? "`` " : "`";
        cells.set(0, marks + name + new StringBuilder(marks).reverse());
        for (int i = 1; i < cells.size(); i++) {
            cells.set(i, plain(cells.get(i)).replace("|", "\\|"));
        }
        return cells;
    }

    /// Words that are no Markdown and no HTML, whoever wrote them.
    private static String plain(String text) {
        return Comments.words(text)
                .replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace("`", "&#96;")
                .replace("[", "&#91;");
    }

    private static String line(List<String> cells) {
        return cells.stream().collect(Collectors.joining(" | ", "| ", " |\n"));
    }
}
