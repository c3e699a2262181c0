package fixshelf.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/// Adds rows on a second thread, so that whoever reads them goes on meanwhile. Used by one thread, to whom a failure
/// of the second one comes with the next row, or at the end.
public final class QueuedRows<C> implements RowSink<C> {
    private static final int BATCH = 500;
    /// So that long texts do not fill the memory while they wait.
    private static final int MOST_SIGNS = 1_000_000;
    private static final int MOST_WAITING = 8;

    private final Supplier<RowSink<C>> opened;
    private final BlockingQueue<List<List<@Nullable C>>> waiting = new ArrayBlockingQueue<>(MOST_WAITING);
    private final Thread thread;
    private List<List<@Nullable C>> batch = new ArrayList<>(BATCH);
    private long signs;
    private boolean ended;
    private boolean told;
    private volatile @Nullable Throwable failure;

    /// @param opened asked for on the second thread, which alone uses it
    public QueuedRows(Supplier<RowSink<C>> opened) {
        this.opened = opened;
        this.thread = Thread.ofPlatform().daemon().name("adding rows").start(this::work);
    }

    private void work() {
        try (RowSink<C> rows = opened.get()) {
            for (List<List<@Nullable C>> some = next(); !some.isEmpty(); some = next()) {
                some.forEach(rows::add);
            }
        } catch (RuntimeException | Error e) {
            failure = e;
            // What still comes is passed over, so that nobody waits for ever.
            while (!next().isEmpty()) {}
        }
    }

    /// The next batch, of which an empty one is the last.
    private List<List<@Nullable C>> next() {
        if (ended) {
            return List.of();
        }
        try {
            List<List<@Nullable C>> some = waiting.take();
            ended = some.isEmpty();
            return some;
        } catch (InterruptedException e) {
            throw new IllegalStateException("nobody interrupts this thread", e);
        }
    }

    @Override
    public void add(List<@Nullable C> row) {
        batch.add(row);
        for (@Nullable C cell : row) {
            signs += cell instanceof String text ? text.length() : 0;
        }
        if (batch.size() == BATCH || signs > MOST_SIGNS) {
            tellFailure();
            hand(batch);
            batch = new ArrayList<>(BATCH);
            signs = 0;
        }
    }

    @Override
    public void close() {
        if (!batch.isEmpty()) {
            hand(batch);
        }
        hand(List.of());
        boolean interrupted = false;
        while (thread.isAlive()) {
            try {
                thread.join();
            } catch (InterruptedException e) {
                interrupted = true;
            }
        }
        if (interrupted) {
            Thread.currentThread().interrupt();
        }
        tellFailure();
    }

    private void tellFailure() {
        Throwable now = failure;
        if (now == null || told) {
            return;
        }
        told = true;
        if (now instanceof Error error) {
            throw error;
        }
        throw (RuntimeException) now;
    }

    /// A batch is never lost to an interrupt, which is kept for whoever asks for it.
    private void hand(List<List<@Nullable C>> some) {
        boolean interrupted = false;
        while (true) {
            try {
                waiting.put(some);
                break;
            } catch (InterruptedException e) {
                interrupted = true;
            }
        }
        if (interrupted) {
            Thread.currentThread().interrupt();
        }
    }
}
