package fixshelf.shelf;

import fixshelf.plan.Line;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.shelf.JobPage.Output;
import fixshelf.shelf.JobPage.PlacedLine;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/// Changes one line or output of a job's page and leaves every other byte as it was.
public final class JobEdits {
    private JobEdits() {}

    /// The page of a job that reads a file and does nothing yet.
    public static String newPage(String name, String title, ReadOptions options) {
        return newPage(name, title, List.of(reading(options)));
    }

    /// The page of a job with these lines, of which the first reads, and no output.
    public static String newPage(String name, String title, List<Line> lines) {
        return "format: 2\njob: " + YamlText.scalar(name) + "\ntitle: " + YamlText.scalar(title) + "\nlines:\n"
                + lines.stream().map(l -> entry(l, "", "  ")).collect(Collectors.joining()) + "outputs: []\n";
    }

    /// The title that a job begins with: its name, as it is read.
    public static String titleOf(String job) {
        return Character.toUpperCase(job.charAt(0)) + job.substring(1).replace('_', ' ');
    }

    /// The line that reads a file with these options.
    public static Line reading(ReadOptions options) {
        return LineFields.reading(options);
    }

    /// The text with line `index`, counted from 0, said anew; its reason stays. Where only what stands in blanks is
    /// another, the rest of the line stays too, with its comments.
    public static String replaceLine(JobPage page, int index, Line line) {
        PlacedLine old = page.lines().get(index);
        String text = page.source().text();
        if (onlyValuesDiffer(old, line)) {
            return replaceValues(page, old, line);
        }
        if (isFlow(page, old.span())) {
            return splice(page, old.span(), LineFields.flow(line, old.reason()));
        }
        String indent =
                " ".repeat(old.span().start() - lineStart(text, old.span().start()));
        return splice(page, old.span(), String.join("\n" + indent, LineFields.write(line, old.reason(), indent)));
    }

    /// The text with a call in the place of some lines.
    ///
    /// @param first the number of the first of them, from 1; there is a line above it
    /// @param last that of the last
    public static String callInstead(JobPage page, int first, int last, Line call) {
        String text = insertLine(page, last, call);
        for (int line = last; line >= first; line--) {
            JobPage longer =
                    JobPages.read(page.file(), new SourceText(page.source().name(), text));
            text = removeLine(longer, line - 1);
        }
        return text;
    }

    /// The text with a line put in at `index`, counted from 0; the lines from there on move down.
    public static String insertLine(JobPage page, int index, Line line) {
        Span before = page.lines().get(index - 1).span();
        if (dash(page, before) < 0) {
            return splice(page, new Span(before.end(), before.end()), ", " + LineFields.flow(line, ""));
        }
        int at = entrySpan(page, before).end();
        String text = page.source().text();
        String end = at > 0 && text.charAt(at - 1) == '\n' ? "" : "\n";
        return splice(page, new Span(at, at), end + entry(line, "", indent(page, before)));
    }

    /// The text without the line at `index`, counted from 0.
    public static String removeLine(JobPage page, int index) {
        Span span = page.lines().get(index).span();
        if (dash(page, span) >= 0) {
            return splice(page, entrySpan(page, span), "");
        }
        String text = page.source().text();
        int from =
                index == 0 ? span.start() : page.lines().get(index - 1).span().end();
        int to = span.end();
        while (index == 0 && to < text.length() && (text.charAt(to) == ',' || text.charAt(to) == ' ')) {
            to++;
        }
        return splice(page, new Span(from, to), "");
    }

    /// The text with line `index` and the one after it exchanged.
    public static String exchangeWithNext(JobPage page, int index) {
        Span one = page.lines().get(index).span();
        Span two = page.lines().get(index + 1).span();
        boolean block = dash(page, one) >= 0;
        Span first = block ? entrySpan(page, one) : one;
        Span second = block ? entrySpan(page, two) : two;
        String text = page.source().text();
        String end = second.end() > 0 && block && text.charAt(second.end() - 1) != '\n' ? "\n" : "";
        return text.substring(0, first.start())
                + text.substring(second.start(), second.end())
                + end
                + text.substring(first.end(), second.start())
                + text.substring(first.start(), first.end())
                + text.substring(second.end());
    }

    private static boolean onlyValuesDiffer(PlacedLine old, Line line) {
        Line same = new Line(line.call(), old.line().blanks(), line.name(), line.strict(), line.rest());
        return old.line().equals(same)
                && line.blanks().keySet().equals(old.line().blanks().keySet())
                && changed(old, line).stream().allMatch(old.blanks()::containsKey);
    }

    private static List<String> changed(PlacedLine old, Line line) {
        return line.blanks().keySet().stream()
                .filter(n -> !line.blanks().get(n).equals(old.line().blanks().get(n)))
                .toList();
    }

    private static String replaceValues(JobPage page, PlacedLine old, Line line) {
        StringBuilder text = new StringBuilder(page.source().text());
        changed(old, line).stream()
                .sorted(Comparator.comparing((String n) -> old.blanks().get(n).start())
                        .reversed())
                .forEach(n -> {
                    Span at = old.blanks().get(n);
                    String value = YamlText.written(line.blanks().get(n));
                    boolean bare = at.start() > 0 && text.charAt(at.start() - 1) == ':';
                    text.replace(at.start(), at.end(), bare ? " " + value : value);
                });
        return text.toString();
    }

    private static boolean isFlow(JobPage page, Span span) {
        return page.source().text().startsWith("{", span.start());
    }

    private static int lineStart(String text, int at) {
        return text.lastIndexOf('\n', Math.max(0, at - 1)) + 1;
    }

    /// Where the dash before an entry stands; -1 for an entry of a list in brackets.
    private static int dash(JobPage page, Span span) {
        String text = page.source().text();
        int at = span.start() - 1;
        while (at >= 0 && Character.isWhitespace(text.charAt(at))) {
            at--;
        }
        return at >= 0 && text.charAt(at) == '-' ? at : -1;
    }

    /// The text with output `index` said anew, or added when there is none of that index.
    public static String setOutput(JobPage page, int index, Output output) {
        if (index < page.outputs().size()) {
            Span old = page.outputs().get(index).span();
            return splice(page, entrySpan(page, old), written(output, indent(page, old)));
        }
        String added = written(output, "  ");
        String text = page.source().text();
        if (!page.outputs().isEmpty()) {
            int at = entrySpan(page, page.outputs().getLast().span()).end();
            return splice(page, new Span(at, at), added);
        }
        if (text.matches("(?s).*(^|\\n)outputs:[^\\n]*\\n?.*")) {
            return text.replaceFirst("(^|\\n)outputs:[^\\n]*(\\n|$)", "$1outputs:\n" + Matcher.quoteReplacement(added));
        }
        return text + (text.endsWith("\n") ? "" : "\n") + "outputs:\n" + added;
    }

    /// An output as it stands on a page.
    public static String written(Output output, String indent) {
        Map<String, String> fields = new LinkedHashMap<>();
        fields.put("replace", output.replace() ? "true" : "");
        fields.put(
                "of",
                output.of()
                        .map(o -> "{line: " + YamlText.scalar(o.line())
                                + (o.report().isEmpty() ? "" : ", report: " + YamlText.scalar(o.report())) + "}")
                        .orElse(""));
        fields.put("sheet", scalar(output.sheet().name()));
        fields.put("cannot_hold", output.sheet().asText() ? "text" : "");
        fields.put("language", scalar(output.language()));
        DelimitedText as = output.text();
        fields.put("separator", scalar(as.separator()));
        fields.put("encoding", as.encoding().equals("utf-8") ? "" : scalar(as.encoding()));
        fields.put("byte_order_mark", as.mark() ? "true" : "");
        fields.put("heading", as.heading() ? "" : "false");
        fields.put("missing", scalar(as.missing()));
        fields.put("line_end", as.crlf() ? "crlf" : "");
        fields.put("quotes", as.quoted() ? "always" : "");
        fields.put("formulas", as.guarded() ? "guarded" : "");
        output.table().ifPresent(t -> {
            fields.put("table", scalar(t.table()));
            fields.put("mode", t.mode().equals("create") ? "" : t.mode());
            fields.put("user", scalar(t.user()));
            fields.put("password_from", t.passwordFrom());
        });
        StringBuilder text = new StringBuilder(indent + "- write: " + YamlText.scalar(output.path()) + "\n");
        fields.forEach((name, value) -> {
            if (!value.isEmpty()) {
                text.append(indent)
                        .append("  ")
                        .append(name)
                        .append(": ")
                        .append(value)
                        .append('\n');
            }
        });
        return text.toString();
    }

    private static String scalar(String text) {
        return text.isEmpty() ? "" : YamlText.scalar(text);
    }

    /// The text with another result: the name or number of a line; empty for the last line.
    public static String setResult(JobPage page, String line) {
        String text = page.source().text();
        String entry = line.isBlank() ? "" : "result: " + YamlText.scalar(line.strip()) + "\n";
        Matcher known = Pattern.compile("(?m)^result:[^\\n]*(\\n|\\z)").matcher(text);
        if (known.find()) {
            return text.substring(0, known.start()) + entry + text.substring(known.end());
        }
        Matcher outputs = Pattern.compile("(?m)^outputs:").matcher(text);
        int at = outputs.find() ? outputs.start() : text.length();
        String before = text.substring(0, at);
        return before + (before.isEmpty() || before.endsWith("\n") ? "" : "\n") + entry + text.substring(at);
    }

    private static String splice(JobPage page, Span span, String text) {
        String all = page.source().text();
        return all.substring(0, span.start()) + text + all.substring(span.end());
    }

    /// Whole lines of text from the dash to the last field, with what stands behind it on its line.
    private static Span entrySpan(JobPage page, Span fields) {
        String text = page.source().text();
        int start = lineStart(text, Math.max(0, dash(page, fields)));
        int end = text.indexOf('\n', fields.end());
        return new Span(start, end < 0 ? text.length() : end + 1);
    }

    private static String indent(JobPage page, Span fields) {
        String text = page.source().text();
        int dash = Math.max(0, dash(page, fields));
        return text.substring(lineStart(text, dash), dash);
    }

    /// A line of a job in YAML, as this program writes it.
    private static String entry(Line line, String reason, String indent) {
        String inner = indent + "  ";
        return indent + "- " + String.join("\n" + inner, LineFields.write(line, reason, inner)) + "\n";
    }

    /// The fields of a reading line or of a dataset.
    static List<String> readFields(ReadOptions options) {
        List<String> fields = new ArrayList<>();
        fields.add("read: " + YamlText.scalar(options.path()));
        if (options.form()
                .filter(f -> !(f instanceof ReadOptions.Form.Delimited))
                .isPresent()) {
            FormFields.written(options).forEach((name, value) -> {
                String field = YamlText.field(name, value, "");
                // Numbers and flags, which need no quotes there.
                fields.add(name.equals("places") || name.equals("heading") ? field.replace("\"", "") : field);
            });
            return fields;
        }
        fields.add("separator: " + YamlText.scalar(options.separator()));
        fields.add("quote: " + YamlText.scalar(options.quote()));
        fields.add("encoding: " + options.encoding());
        fields.add("heading: " + options.heading());
        fields.add("null_words: " + YamlText.list(options.nullWords()));
        if (options.leaveOutBadRows()) {
            fields.add("bad_rows: leave_out");
        }
        return fields;
    }
}
