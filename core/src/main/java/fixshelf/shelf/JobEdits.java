package fixshelf.shelf;

import fixshelf.plan.Columns;
import fixshelf.plan.Line;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Span;
import fixshelf.shelf.JobPage.Output;
import fixshelf.shelf.JobPage.PlacedLine;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// Changes one line or output of a job's page and leaves every other byte as it was.
public final class JobEdits {
    private JobEdits() {}

    /// The page of a job that reads a file and does nothing yet.
    public static String newPage(String name, String title, ReadOptions options) {
        return "job: " + YamlText.scalar(name) + "\ntitle: " + YamlText.scalar(title) + "\nlines:\n"
                + entry(new Line.ReadFile(options), "", "  ") + "outputs: []\n";
    }

    /// The text with line `index`, counted from 0, said anew; its reason stays.
    public static String replaceLine(JobPage page, int index, Line line) {
        PlacedLine old = page.lines().get(index);
        Span whole = entrySpan(page, old.span());
        return splice(page, whole, entry(line, old.reason(), indent(page, old.span())));
    }

    /// The text with a line put in at `index`, counted from 0; the lines from there on move down.
    public static String insertLine(JobPage page, int index, Line line) {
        PlacedLine before = page.lines().get(index - 1);
        int at = entrySpan(page, before.span()).end();
        return splice(page, new Span(at, at), entry(line, "", indent(page, before.span())));
    }

    public static String removeLine(JobPage page, int index) {
        return splice(page, entrySpan(page, page.lines().get(index).span()), "");
    }

    /// The text with line `index` and the one after it exchanged.
    public static String exchangeWithNext(JobPage page, int index) {
        Span first = entrySpan(page, page.lines().get(index).span());
        Span second = entrySpan(page, page.lines().get(index + 1).span());
        String text = page.source().text();
        return text.substring(0, first.start())
                + text.substring(second.start(), second.end())
                + text.substring(first.end(), second.start())
                + text.substring(first.start(), first.end())
                + text.substring(second.end());
    }

    /// The text with output `index` said anew, or added when there is none of that index.
    public static String setOutput(JobPage page, int index, Output output) {
        String entry = "write: " + YamlText.scalar(output.path()) + "\n";
        if (index < page.outputs().size()) {
            Span old = page.outputs().get(index).span();
            String indent = indent(page, old);
            String replace = output.replace() ? indent + "  replace: true\n" : "";
            return splice(page, entrySpan(page, old), indent + "- " + entry + replace);
        }
        String added = "  - " + entry + (output.replace() ? "    replace: true\n" : "");
        String text = page.source().text();
        if (!page.outputs().isEmpty()) {
            int at = entrySpan(page, page.outputs().getLast().span()).end();
            return splice(page, new Span(at, at), added);
        }
        if (text.matches("(?s).*(^|\\n)outputs:[^\\n]*\\n?.*")) {
            return text.replaceFirst(
                    "(^|\\n)outputs:[^\\n]*(\\n|$)", "$1outputs:\n" + java.util.regex.Matcher.quoteReplacement(added));
        }
        return text + (text.endsWith("\n") ? "" : "\n") + "outputs:\n" + added;
    }

    private static String splice(JobPage page, Span span, String text) {
        String all = page.source().text();
        return all.substring(0, span.start()) + text + all.substring(span.end());
    }

    /// Whole lines of text from the dash to the last field.
    private static Span entrySpan(JobPage page, Span fields) {
        String text = page.source().text();
        int start = text.lastIndexOf('\n', Math.max(0, fields.start() - 1)) + 1;
        int last = fields.end();
        while (last > fields.start() && Character.isWhitespace(text.charAt(last - 1))) {
            last--;
        }
        int end = text.indexOf('\n', last);
        return new Span(start, end < 0 ? text.length() : end + 1);
    }

    private static String indent(JobPage page, Span fields) {
        String text = page.source().text();
        int start = text.lastIndexOf('\n', Math.max(0, fields.start() - 1)) + 1;
        int dash = text.indexOf('-', start);
        return text.substring(start, Math.max(start, dash));
    }

    /// A line of a job in YAML, as this program writes it.
    static String entry(Line line, String reason, String indent) {
        List<String> fields = new ArrayList<>(fields(line));
        if (!reason.isEmpty()) {
            fields.add("reason: " + YamlText.scalar(reason));
        }
        return indent + "- " + String.join("\n" + indent + "  ", fields) + "\n";
    }

    private static List<String> fields(Line line) {
        return switch (line) {
            case Line.ReadFile(ReadOptions options) -> readFields(options);
            case Line.ReadDataset(String dataset) -> List.of("dataset: " + YamlText.scalar(dataset));
            case Line.Apply apply -> {
                List<String> fields = new ArrayList<>();
                fields.add("fix: " + YamlText.scalar(apply.fix()));
                fields.add("columns: " + columns(apply.columns()));
                if (!apply.arguments().isEmpty()) {
                    fields.add("with: " + YamlText.pairs(apply.arguments()));
                }
                if (apply.lost() == Line.Lost.STOPS) {
                    fields.add("strict: true");
                }
                yield fields;
            }
            case Line.DropRepeats(List<String> keys, Line.Keep keep, List<String> order) -> {
                List<String> fields = new ArrayList<>();
                fields.add("drop_repeats: " + (keys.isEmpty() ? "all columns" : YamlText.list(keys)));
                fields.add("keep: " + keep.name().toLowerCase(Locale.ROOT));
                if (!order.isEmpty()) {
                    fields.add("by: " + YamlText.list(order));
                }
                yield fields;
            }
            case Line.Choose(List<String> columns) -> List.of("choose: " + YamlText.list(columns));
            case Line.Drop(List<String> columns) -> List.of("drop: " + YamlText.list(columns));
            case Line.Rename rename -> List.of("rename: " + YamlText.pairs(rename.names()));
        };
    }

    private static String columns(Columns columns) {
        return switch (columns) {
            case Columns.EveryText() -> JobPages.EVERY_TEXT;
            case Columns.AllBut(List<String> names) -> "{all_but: " + YamlText.list(names) + "}";
            case Columns.Named(List<String> names) -> YamlText.list(names);
        };
    }

    /// The fields of a reading line or of a dataset.
    static List<String> readFields(ReadOptions options) {
        List<String> fields = new ArrayList<>();
        fields.add("read: " + YamlText.scalar(options.path()));
        fields.add("separator: " + YamlText.scalar(String.valueOf(options.separator())));
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
