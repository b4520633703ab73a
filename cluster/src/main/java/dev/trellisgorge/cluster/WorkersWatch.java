package dev.trellisgorge.cluster;

import java.util.concurrent.TimeUnit;
import org.apache.spark.SparkContext;

/** Looks after the workers while a statement runs: where all are gone it would wait for others for ever, and is ended. */
final class WorkersWatch implements AutoCloseable {
    private static final long PATIENCE = TimeUnit.SECONDS.toNanos(20);
    /** Milliseconds. */
    private static final long PAUSE = 500;

    private final SparkContext context;
    private final Runnable gone;
    private final Thread thread;

    /** @param gone done before the statement is ended */
    WorkersWatch(SparkContext context, Runnable gone) {
        this.context = context;
        this.gone = gone;
        this.thread = new Thread(this::watch, "workers");
        thread.setDaemon(true);
        thread.start();
    }

    /** Whether there is a worker beside the driver. */
    static boolean areThere(SparkContext context) {
        return context.statusTracker().getExecutorInfos().length > 1;
    }

    private void watch() {
        long seen = System.nanoTime();
        try {
            while (!context.isStopped()) {
                Thread.sleep(PAUSE);
                if (areThere(context)) {
                    seen = System.nanoTime();
                } else if (System.nanoTime() - seen > PATIENCE) {
                    gone.run();
                    context.cancelAllJobs();
                    return;
                }
            }
        } catch (InterruptedException e) {
            // the statement has ended
        }
    }

    @Override
    public void close() {
        thread.interrupt();
    }
}
