package fixshelf.shelf;

import fixshelf.check.Cases;
import fixshelf.plan.Blank;
import fixshelf.plan.TableExample;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/// The text of a table fix's page after an edit of a part of it; everything else stays as it is written.
public final class TableFixEdits {
    private TableFixEdits() {}

    public static String newPage(String name) {
        return """
            ---
            format: 2
            fix: %s
            kind: table
            version: 0.1.0
            reads: %s by {keys}
            parameters:
              keys: {type: columns, about: The columns that make two rows the same.}
            ---
            # %s

            Says in one sentence what it is for.

            ```yaml
            - drop_repeats: ["{keys}"]
              keep: first
            ```

            ## Cases

            ### Two rows with one key

            with

            | keys |
            |---|
            | no |

            given

            | no | item |
            |---|---|
            | '1' | 'lamp' |
            | '1' | 'saw' |

            gives

            | no | item |
            |---|---|
            | '1' | 'lamp' |
            """.formatted(name, name.replace('_', ' '), title(name));
    }

    private static String title(String name) {
        return Character.toUpperCase(name.charAt(0)) + name.substring(1).replace('_', ' ');
    }

    /// A loader that reads a file by its name.
    public static String newLoader(String name) {
        return """
            ---
            format: 2
            fix: %s
            kind: loader
            version: 0.1.0
            reads: read %s of {name}
            parameters:
              name: {type: text, about: "What the file is called, without its ending."}
            ---
            # %s

            Says in one sentence what it reads.

            ```yaml
            - read: {file: "{data}/{name}.csv"}
            ```
            """.formatted(name, name.replace('_', ' '), title(name));
    }

    public static String setTitle(TableFixPage page, String title) {
        return FrontEdits.setTitle(page.source(), title);
    }

    /// The text with a field of the front matter set; `value` is YAML.
    public static String setField(TableFixPage page, String field, String value) {
        return FrontEdits.setField(page.source(), field, value);
    }

    /// The parameters as an author types them; types stay as they are written.
    public static List<FixEdits.ParameterText> parameters(TableFixPage page) {
        Map<String, String> types = TableFixPages.types(page.source());
        return page.parameters().stream()
                .map(b -> new FixEdits.ParameterText(
                        b.name(), types.getOrDefault(b.name(), b.kind().name()), said(b), b.about()))
                .toList();
    }

    private static <T> String said(Blank<T> blank) {
        return blank.fallback().map(blank.kind()::say).orElse("");
    }

    /// The text with the parameters said anew. What stands where one is left out is read as its type says, so that a
    /// list is written as one.
    public static String setParameters(TableFixPage page, List<FixEdits.ParameterText> parameters) {
        return FrontEdits.setParameters(page.source(), parameters, p -> TableFixPages.kind(p.name(), p.type())
                .flatMap(k -> k.typed(p.fallback()).value())
                .map(YamlText::written)
                .orElseGet(() -> YamlText.scalar(p.fallback())));
    }

    /// The text with other prose between the title and the lines.
    public static String setProse(TableFixPage page, String prose) {
        String inside = prose.isBlank() ? "\n" : "\n" + prose.strip() + "\n\n";
        return FrontEdits.splice(
                page.source().text(), PageText.of(page.source()).tableProse(), inside);
    }

    /// The lines as those of a job, so that they are shown and edited in the same way.
    public static JobPage asLines(TableFixPage page) {
        return new JobPage(
                page.file(),
                page.source(),
                page.name(),
                page.title(),
                page.prose(),
                Map.of(),
                page.allLines(),
                List.of(),
                "",
                List.of());
    }

    /// The text with a case at its end, or before the next chapter.
    ///
    /// @param arguments what stands in the blanks, as it is typed
    public static String addCase(
            TableFixPage page,
            String title,
            Map<String, String> arguments,
            TableExample.Table given,
            TableExample.Table gives) {
        StringBuilder added =
                new StringBuilder("\n### ").append(freeTitle(page, title)).append("\n");
        if (!arguments.isEmpty()) {
            added.append("\nwith\n\n");
            row(added, List.copyOf(arguments.keySet()));
            row(added, arguments.keySet().stream().map(_ -> "---").toList());
            row(added, List.copyOf(arguments.values()));
        }
        table(added, "given", given);
        table(added, "gives", gives);
        String text = page.source().text();
        String whole = text.endsWith("\n") ? text : text + "\n";
        Matcher cases = Pattern.compile("(?m)^## Cases\\s*$").matcher(whole);
        if (!cases.find()) {
            return whole + "\n## Cases\n" + added;
        }
        Matcher next = Pattern.compile("(?m)^## ").matcher(whole);
        int at = next.find(cases.end()) ? next.start() : whole.length();
        String before = whole.substring(0, at).stripTrailing() + "\n";
        String after = whole.substring(at);
        return before + added + (after.isEmpty() ? "" : "\n" + after);
    }

    /// The title, with a number where a case has it already.
    private static String freeTitle(TableFixPage page, String title) {
        List<String> lines = page.source().text().lines().map(String::strip).toList();
        String free = title;
        for (int n = 2; lines.contains("### " + free); n++) {
            free = title + ", " + n;
        }
        return free;
    }

    private static void table(StringBuilder out, String label, TableExample.Table table) {
        out.append("\n").append(label).append("\n\n");
        row(out, table.heading());
        row(out, table.heading().stream().map(_ -> "---").toList());
        table.rows().forEach(r -> row(out, r));
    }

    private static void row(StringBuilder out, List<String> cells) {
        out.append("| ")
                .append(cells.stream().map(c -> c.replace("|", "\\|")).collect(Collectors.joining(" | ")))
                .append(" |\n");
    }
}
