package fixshelf.shelf;

import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.commonmark.ext.gfm.tables.TableBlock;
import org.commonmark.ext.gfm.tables.TablesExtension;
import org.commonmark.node.FencedCodeBlock;
import org.commonmark.node.Heading;
import org.commonmark.node.Node;
import org.commonmark.node.Paragraph;
import org.commonmark.node.SourceSpan;
import org.commonmark.node.Text;
import org.commonmark.parser.IncludeSourceSpans;
import org.commonmark.parser.Parser;

/// Where the parts of a Markdown page stand: its fields, title, prose, bodies and tables.
final class PageText {
    private static final Parser PARSER = Parser.builder()
            .extensions(List.of(TablesExtension.create()))
            .includeSourceSpans(IncludeSourceSpans.BLOCKS)
            .build();

    private final SourceText source;
    private final String text;
    private Optional<Span> front = Optional.empty();
    private Optional<Heading> title = Optional.empty();
    private final List<Node> blocks = new ArrayList<>();
    private int markdownStart;

    /// A cell with its text, `\|` read as `|`, edge blanks dropped.
    record Cell(String text, Span span) {}

    /// A row of a table.
    record Row(List<Cell> cells, Span span) {}

    /// A table under a heading.
    record Table(Row heading, List<Row> rows, Span span) {}

    private PageText(SourceText source) {
        this.source = source;
        this.text = source.text();
    }

    static PageText of(SourceText source) {
        PageText page = new PageText(source);
        page.findFront();
        Node document = PARSER.parse(page.text.substring(page.markdownStart));
        for (Node node = document.getFirstChild(); node != null; node = node.getNext()) {
            page.blocks.add(node);
        }
        page.title = page.blocks.stream()
                .filter(b -> b instanceof Heading h && h.getLevel() == 1)
                .map(Heading.class::cast)
                .findFirst();
        return page;
    }

    private void findFront() {
        if (!text.startsWith("---\n") && !text.startsWith("---\r\n")) {
            return;
        }
        int start = text.indexOf('\n') + 1;
        for (int at = start; at < text.length(); at = nextLine(at)) {
            if (text.substring(at, nextLine(at)).strip().equals("---")) {
                front = Optional.of(new Span(start, at));
                markdownStart = nextLine(at);
                return;
            }
        }
    }

    private int nextLine(int at) {
        int end = text.indexOf('\n', at);
        return end < 0 ? text.length() : end + 1;
    }

    /// The fields between the two lines of `---`.
    Optional<Span> front() {
        return front;
    }

    Optional<String> title() {
        return title.map(h -> words(h).strip()).filter(t -> !t.isEmpty());
    }

    Optional<Span> titleSpan() {
        return title.map(this::spanOf);
    }

    private static String words(Node node) {
        StringBuilder out = new StringBuilder();
        for (Node child = node.getFirstChild(); child != null; child = child.getNext()) {
            out.append(child instanceof Text t ? t.getLiteral() : words(child));
        }
        return out.toString();
    }

    /// What the author wrote between the title and the body, or the first heading, or the end.
    Span prose() {
        int start = title.map(h -> nextLine(spanOf(h).end())).orElse(markdownStart);
        int end = text.length();
        for (Node block : blocks) {
            boolean stops =
                    block instanceof FencedCodeBlock f && isBody(f) || block instanceof Heading h && h.getLevel() == 2;
            if (stops && spanOf(block).start() >= start) {
                end = spanOf(block).start();
                break;
            }
        }
        return new Span(Math.min(start, end), end);
    }

    /// What the author wrote between the title and the first block or heading.
    Span tableProse() {
        int start = title.map(h -> nextLine(spanOf(h).end())).orElse(markdownStart);
        int end = blocks.stream()
                .filter(b -> b instanceof FencedCodeBlock || b instanceof Heading h && h.getLevel() == 2)
                .map(b -> spanOf(b).start())
                .filter(at -> at >= start)
                .findFirst()
                .orElse(text.length());
        return new Span(Math.min(start, end), end);
    }

    /// The contents of the blocks that are fenced with that word.
    List<Span> bodies(String info) {
        return blocks.stream()
                .filter(b -> b instanceof FencedCodeBlock f
                        && f.getInfo() != null
                        && f.getInfo().strip().equalsIgnoreCase(info))
                .map(b -> inside((FencedCodeBlock) b))
                .toList();
    }

    /// A case under a heading of its own: tables, each after a word that says what it is.
    ///
    /// @param odd tables of which it is not said what they are, or that come again
    record CaseText(String title, Map<String, Table> tables, List<Table> odd, Span span) {}

    /// The cases under `## Cases`, each under a heading of the third level.
    List<CaseText> tableCases() {
        List<CaseText> cases = new ArrayList<>();
        boolean under = false;
        String label = "";
        for (Node block : blocks) {
            if (block instanceof Heading h && h.getLevel() <= 2) {
                under = words(h).strip().equalsIgnoreCase("cases");
            } else if (under && block instanceof Heading h) {
                cases.add(new CaseText(words(h).strip(), new LinkedHashMap<>(), new ArrayList<>(), spanOf(h)));
                label = "";
            } else if (under && block instanceof Paragraph p) {
                label = words(p).strip().toLowerCase(java.util.Locale.ROOT);
            } else if (under && block instanceof TableBlock && !cases.isEmpty()) {
                Table table = tableOf(spanOf(block));
                boolean named = fixshelf.language.tree.Names.problemWith(label).isEmpty();
                if (!named || cases.getLast().tables().putIfAbsent(label, table) != null) {
                    cases.getLast().odd().add(table);
                }
                label = "";
            }
        }
        return cases;
    }

    /// The contents of the blocks that are fenced as `sql`.
    List<Span> bodies() {
        return blocks.stream()
                .filter(b -> b instanceof FencedCodeBlock f && isBody(f))
                .map(b -> inside((FencedCodeBlock) b))
                .toList();
    }

    private static boolean isBody(FencedCodeBlock block) {
        return block.getInfo() != null && block.getInfo().strip().equalsIgnoreCase("sql");
    }

    private Span inside(FencedCodeBlock block) {
        Span whole = spanOf(block);
        int start = nextLine(whole.start());
        boolean closed = block.getClosingFenceLength() != null && block.getClosingFenceLength() > 0;
        int lastLine = text.lastIndexOf('\n', Math.max(0, whole.end() - 1)) + 1;
        int end = closed ? Math.max(start, lastLine) : whole.end();
        int trimmed = end > start && text.charAt(end - 1) == '\n' ? end - 1 : end;
        return new Span(Math.min(start, trimmed), trimmed);
    }

    /// The end of the line after which a new section can be added: the end of the first body, or of the page.
    int afterBody() {
        return blocks.stream()
                .filter(b -> b instanceof FencedCodeBlock f && isBody(f))
                .findFirst()
                .map(b -> nextLine(spanOf(b).end()))
                .orElse(text.length());
    }

    /// The first table after the heading of that name.
    Optional<Table> table(String heading) {
        boolean under = false;
        for (Node block : blocks) {
            if (block instanceof Heading h && h.getLevel() == 2) {
                under = words(h).strip().equalsIgnoreCase(heading);
            } else if (under && block instanceof TableBlock) {
                return Optional.of(tableOf(spanOf(block)));
            }
        }
        return Optional.empty();
    }

    private Table tableOf(Span span) {
        List<Row> rows = new ArrayList<>();
        for (int at = span.start(); at < span.end(); at = nextLine(at)) {
            rows.add(row(at, Math.min(nextLine(at), text.length())));
        }
        return new Table(rows.getFirst(), rows.stream().skip(2).toList(), span);
    }

    private Row row(int start, int end) {
        int from = start;
        int to = end;
        while (to > from && Character.isWhitespace(text.charAt(to - 1))) {
            to--;
        }
        Span whole = new Span(start, to);
        from += text.charAt(from) == '|' ? 1 : 0;
        List<Cell> cells = new ArrayList<>();
        int cell = from;
        for (int i = from; i < to; i++) {
            if (text.startsWith("\\|", i)) {
                i++;
            } else if (text.charAt(i) == '|') {
                cells.add(cell(cell, i));
                cell = i + 1;
            }
        }
        if (cell < to) {
            cells.add(cell(cell, to));
        }
        return new Row(cells, whole);
    }

    private Cell cell(int start, int end) {
        int from = start;
        int to = end;
        while (from < to && text.charAt(from) == ' ') {
            from++;
        }
        while (to > from && text.charAt(to - 1) == ' ') {
            to--;
        }
        return new Cell(text.substring(from, to).replace("\\|", "|"), new Span(from, to));
    }

    private Span spanOf(Node block) {
        List<SourceSpan> spans = block.getSourceSpans();
        SourceSpan first = spans.getFirst();
        SourceSpan last = spans.getLast();
        return new Span(markdownStart + first.getInputIndex(), markdownStart + last.getInputIndex() + last.getLength());
    }
}
