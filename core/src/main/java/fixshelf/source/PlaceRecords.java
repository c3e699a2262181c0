package fixshelf.source;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form.Places;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Lines of text, cut at fixed places. Blanks at the ends of a field go with the cutting; a field of blanks alone is
/// the empty text. Places count characters, so that letters beyond the basic plane count once. Of printed pages, the
/// number of the page and of the line on it stand in front.
final class PlaceRecords implements Records {
    private final BufferedReader in;
    private final ReadOptions options;
    private final Places form;
    private final List<String> names = new ArrayList<>();
    private final Optional<PageHeads> heads;
    private final Optional<PageHeads.Reading> pages;
    private final Deque<PageHeads.OfPage> waiting = new ArrayDeque<>();
    private int line;
    private int leftOut;

    PlaceRecords(Path file, ReadOptions options, Places form) throws IOException {
        this.options = options;
        this.form = form;
        boolean printed = form.pages() != Places.Pages.NONE;
        if (printed) {
            try (BufferedReader whole = open(file, options)) {
                this.heads = Optional.of(PageHeads.find(whole));
            }
        } else {
            this.heads = Optional.empty();
        }
        this.in = open(file, options);
        this.pages = printed ? Optional.of(new PageHeads.Reading(in)) : Optional.empty();
        if (printed) {
            names.addAll(List.of("page", "line"));
        }
        if (options.heading()) {
            heading().ifPresent(names::addAll);
        }
        while (names.size() < starts().size() + (printed ? 2 : 0)) {
            names.add("");
        }
    }

    private static BufferedReader open(Path file, ReadOptions options) throws IOException {
        BufferedReader in = new BufferedReader(SourceFile.reader(file, options));
        in.mark(1);
        if (in.read() != 0xFEFF) {
            in.reset();
        }
        return in;
    }

    private List<Integer> starts() {
        return form.starts().isEmpty() ? List.of(1) : form.starts();
    }

    /// The names: of printed pages whose heads are left out the last line of the first head, else the first line.
    private Optional<List<String>> heading() throws IOException {
        if (pages.isEmpty()) {
            line++;
            return Optional.ofNullable(in.readLine()).map(this::cut);
        }
        if (form.pages() == Places.Pages.LEAVE_OUT_HEADS) {
            fill();
            return waiting.stream()
                    .filter(l -> heads.orElseThrow().isHead(l))
                    .reduce((_, last) -> last)
                    .map(l -> cut(l.text()));
        }
        return nextOfPage().map(l -> cut(l.text()));
    }

    private List<String> cut(String text) {
        return FixedPlaces.cut(text, starts());
    }

    private void fill() throws IOException {
        if (waiting.isEmpty()) {
            waiting.addAll(pages.orElseThrow().page());
        }
    }

    private Optional<PageHeads.OfPage> nextOfPage() throws IOException {
        while (true) {
            fill();
            PageHeads.OfPage next = waiting.poll();
            if (next == null) {
                return Optional.empty();
            }
            line++;
            boolean isHead = form.pages() == Places.Pages.LEAVE_OUT_HEADS
                    && heads.orElseThrow().has(next);
            if (!isHead) {
                return Optional.of(next);
            }
            leftOut++;
        }
    }

    @Override
    public List<String> names() {
        return names;
    }

    @Override
    public Optional<Row> next() throws IOException {
        List<@Nullable String> cells = new ArrayList<>();
        Optional<String> text;
        if (pages.isPresent()) {
            Optional<PageHeads.OfPage> found = nextOfPage();
            found.ifPresent(l -> {
                cells.add(String.valueOf(l.page()));
                cells.add(String.valueOf(l.line() + 1));
            });
            text = found.map(PageHeads.OfPage::text);
        } else {
            text = Optional.ofNullable(in.readLine());
            line++;
        }
        if (text.isEmpty()) {
            return Optional.empty();
        }
        List<String> cut = cut(text.get());
        boolean decoded = cut.stream().noneMatch(f -> f.indexOf(RecordReader.NOT_DECODED) >= 0);
        cut.forEach(f -> cells.add(options.nullWords().contains(f) ? null : f));
        return Optional.of(new Row(line, cells, decoded ? "" : RecordReader.Why.NOT_DECODED.sentence(), List.of()));
    }

    @Override
    public List<String> notes(boolean whole) {
        return heads.map(h -> h.note(form.pages() == Places.Pages.LEAVE_OUT_HEADS, leftOut, whole))
                .filter(n -> !n.isEmpty())
                .map(List::of)
                .orElse(List.of());
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
