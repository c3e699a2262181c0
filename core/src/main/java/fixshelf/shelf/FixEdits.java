package fixshelf.shelf;

import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// Changes one part of a fix's page and leaves every other byte as it was.
public final class FixEdits {
    private FixEdits() {}

    /// The page of a fix that gives its text back unchanged.
    public static String newPage(String name) {
        String title = Character.toUpperCase(name.charAt(0)) + name.substring(1).replace('_', ' ');
        return """
            ---
            fix: %s
            kind: value
            version: 0.1.0
            reads: %s in {text}
            parameters:
              text: {type: text, about: The text to change.}
            returns: text
            tags: [text]
            promises: [null_only_from_null]
            ---
            # %s

            Says in one sentence what it is for.

            ```sql
            RETURN text;
            ```

            ## Cases

            | text | result |
            |---|---|
            | NULL | NULL |

            ## Changes

            - 0.1.0 first
            """.formatted(name, name.replace('_', ' '), title);
    }

    /// The text with another body; a page without one gets it at its end.
    public static String setBody(FixPage page, String body) {
        String text = page.source().text();
        if (page.body().isEmpty()) {
            return text + (text.endsWith("\n") ? "\n" : "\n\n") + "```sql\n" + body + "\n```\n";
        }
        return splice(text, page.body().get(), body);
    }

    /// The text with another title.
    public static String setTitle(FixPage page, String title) {
        return FrontEdits.setTitle(page.source(), title);
    }

    /// The text with other prose between the title and the body.
    public static String setProse(FixPage page, String prose) {
        String inside = prose.isBlank() ? "\n" : "\n" + prose.strip() + "\n\n";
        return splice(page.source().text(), page.proseSpan(), inside);
    }

    /// The text with a field of the front matter set; `value` is YAML.
    public static String setField(FixPage page, String field, String value) {
        return FrontEdits.setField(page.source(), field, value);
    }

    /// The text with the parameters said anew.
    public static String setParameters(FixPage page, List<ParameterText> parameters) {
        return FrontEdits.setParameters(page.source(), parameters, p -> YamlText.scalar(p.fallback()));
    }

    /// A parameter as an author types it; an empty `fallback` means that it has none.
    public record ParameterText(String name, String type, String fallback, String about) {}

    /// The text with a case added at the end of the table; `cells` go by the table's columns.
    public static String addCase(FixPage page, List<String> cells) {
        String row = row(cells);
        PageText parts = PageText.of(page.source());
        String text = page.source().text();
        return parts.table("Cases")
                .map(table -> {
                    boolean open = table.span().end() >= text.length();
                    int at = open
                            ? text.length()
                            : text.indexOf('\n', Math.max(0, table.span().end() - 1)) + 1;
                    boolean lineEnds = at > 0 && text.charAt(at - 1) == '\n';
                    return splice(text, new Span(at, at), (lineEnds ? "" : "\n") + row + "\n");
                })
                .orElseGet(() -> {
                    List<String> heading = heading(page);
                    String table =
                            "\n## Cases\n\n" + row(heading) + "\n|" + "---|".repeat(heading.size()) + "\n" + row + "\n";
                    int at = parts.afterBody();
                    return splice(text, new Span(at, at), table);
                });
    }

    /// The columns of the table of cases: as it stands, or as a new one would be.
    public static List<String> heading(FixPage page) {
        return PageText.of(page.source())
                .table("Cases")
                .map(t -> t.heading().cells().stream().map(PageText.Cell::text).toList())
                .orElseGet(() -> Stream.concat(page.parameters().stream().map(p -> p.name()), Stream.of("result"))
                        .toList());
    }

    /// The rows of the table of cases as they are written, also those that have problems.
    public static List<List<String>> rows(FixPage page) {
        return PageText.of(page.source())
                .table("Cases")
                .map(t -> t.rows().stream()
                        .map(r -> r.cells().stream().map(PageText.Cell::text).toList())
                        .toList())
                .orElse(List.of());
    }

    /// The text with row `index` of the table of cases, counted from 0, said anew.
    public static String setCase(FixPage page, int index, List<String> cells) {
        PageText.Row row =
                PageText.of(page.source()).table("Cases").orElseThrow().rows().get(index);
        return splice(page.source().text(), row.span(), row(cells));
    }

    /// The text without row `index` of the table of cases.
    public static String removeCase(FixPage page, int index) {
        PageText.Row row =
                PageText.of(page.source()).table("Cases").orElseThrow().rows().get(index);
        String text = page.source().text();
        int end = Math.min(text.length(), row.span().end() + 1);
        return splice(text, new Span(row.span().start(), end), "");
    }

    private static String row(List<String> cells) {
        return cells.stream()
                .map(c -> c.isBlank() ? " |" : " " + c.replace("|", "\\|").replace("\n", " ") + " |")
                .collect(Collectors.joining("", "|", ""));
    }

    private static String splice(String text, Span span, String inside) {
        return FrontEdits.splice(text, span, inside);
    }

    /// The page read again after a change of its text.
    public static FixPage reread(FixPage page, String text) {
        return FixPages.read(page.file(), new SourceText(page.source().name(), text));
    }
}
