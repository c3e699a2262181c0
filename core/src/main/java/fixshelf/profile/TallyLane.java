package fixshelf.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.Semaphore;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/// Looks at values on a thread of its own, in the order in which they are handed over, while the engine gives more.
final class TallyLane implements AutoCloseable {
    private static final int BATCH = 4_096;
    private static final int MOST_WAITING = 32;

    private final ExecutorService lane = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "fixshelf tally");
        thread.setDaemon(true);
        return thread;
    });
    private final Semaphore room = new Semaphore(MOST_WAITING);
    private List<ColumnTally.Counted> batch = new ArrayList<>();
    /// Set on the lane, and only asked for there.
    private @Nullable Throwable failure;

    /// Hands over a value of a column.
    void add(ColumnTally tally, String value, long rows) {
        batch.add(new ColumnTally.Counted(value, rows));
        if (batch.size() == BATCH) {
            flush(tally);
        }
    }

    /// Hands over what is still here of a column.
    void flush(ColumnTally tally) {
        List<ColumnTally.Counted> values = batch;
        batch = new ArrayList<>();
        room.acquireUninterruptibly();
        lane.execute(() -> {
            try {
                values.forEach(v -> tally.add(v.value(), v.rows()));
            } catch (RuntimeException | Error e) {
                failure = e;
            } finally {
                room.release();
            }
        });
    }

    /// Does something after all that was handed over.
    <T> Future<T> then(Supplier<T> work) {
        return lane.submit(() -> {
            if (failure != null) {
                throw new IllegalStateException("values could not be looked at", failure);
            }
            return work.get();
        });
    }

    /// What came of it; waits for it.
    static <T> T result(Future<T> future) {
        try {
            return future.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted while values were looked at", e);
        } catch (ExecutionException e) {
            throw new IllegalStateException("values could not be looked at", e.getCause());
        }
    }

    @Override
    public void close() {
        lane.shutdownNow();
    }
}
