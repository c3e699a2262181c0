package fixshelf.desktop.parts;

import fixshelf.work.PreviewRow;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.collections.ObservableListBase;

/// A list over the pages of a result: it knows how many rows there are and asks for the pages that are looked at.
public final class PagedRows extends ObservableListBase<PreviewRow> {
    public static final int PAGE = 200;
    private static final int MOST_PAGES = 30;
    private static final PreviewRow COMING = new PreviewRow(0, PreviewRow.Mark.NONE, List.of());

    private final int size;
    private final BiConsumer<Integer, PagedRows> fetch;
    private final Map<Integer, List<PreviewRow>> pages = new TreeMap<>();

    private Consumer<List<PreviewRow>> first = _ -> {};

    /// `fetch` is asked for a page and later hands it over with [#put].
    public PagedRows(long size, BiConsumer<Integer, PagedRows> fetch) {
        this.size = (int) Math.min(size, Integer.MAX_VALUE);
        this.fetch = fetch;
    }

    @Override
    public PreviewRow get(int index) {
        List<PreviewRow> page = pages.get(index / PAGE);
        if (page == null) {
            if (pages.size() > MOST_PAGES) {
                pages.clear();
            }
            pages.put(index / PAGE, List.of());
            fetch.accept(index / PAGE, this);
            return pages.get(index / PAGE).isEmpty() ? COMING : get(index);
        }
        int at = index % PAGE;
        return at < page.size() ? page.get(at) : COMING;
    }

    /// Tells, once, the rows of the page that comes first, a moment before they are there.
    public void whenFirstCome(Consumer<List<PreviewRow>> listener) {
        first = first.andThen(listener);
    }

    public void put(int page, List<PreviewRow> rows) {
        if (!rows.isEmpty()) {
            Consumer<List<PreviewRow>> listener = first;
            first = _ -> {};
            listener.accept(rows);
        }
        beginChange();
        pages.put(page, rows);
        for (int i = 0; i < rows.size() && page * PAGE + i < size; i++) {
            nextUpdate(page * PAGE + i);
        }
        endChange();
    }

    @Override
    public int size() {
        return size;
    }
}
