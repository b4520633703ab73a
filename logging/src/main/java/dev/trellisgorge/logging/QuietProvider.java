package dev.trellisgorge.logging;

import org.apache.logging.log4j.simple.SimpleLoggerContextFactory;
import org.apache.logging.log4j.spi.Provider;

/**
 * What a library logs goes to errors on the console alone, and no complaint is printed that nothing takes it. Any other provider
 * of the program that the modules run in goes before this one.
 */
public final class QuietProvider extends Provider {
    private static final int LAST = 0;

    public QuietProvider() {
        super(LAST, CURRENT_VERSION, SimpleLoggerContextFactory.class);
    }
}
