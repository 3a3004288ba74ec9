package org.vastporch.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.ReducedMotion;
import com.microsoft.playwright.options.WaitForSelectorState;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.demo.Demo;

/** One browser and one demo school for the whole run; each test gets a window of its own. */
final class Stage {

    private static final Playwright PLAYWRIGHT =
            Playwright.create(new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
    private static final Browser BROWSER = PLAYWRIGHT
            .chromium()
            .launch(new BrowserType.LaunchOptions()
                    .setExecutablePath(Path.of(System.getProperty("porch.chromium", "/usr/bin/chromium")))
                    .setArgs(List.of(
                            "--no-sandbox",
                            "--disable-gpu",
                            "--disable-background-networking",
                            "--disable-component-update",
                            "--disable-sync",
                            "--no-first-run",
                            // A microphone that hums, for what is recorded in the browser.
                            "--use-fake-device-for-media-stream",
                            "--use-fake-ui-for-media-stream")));
    private static Demo.Running demo;
    /** The school's database as it was filled, before any test. */
    private static Path filled;

    static {
        // A slow machine is no failure.
        PlaywrightAssertions.setDefaultAssertionTimeout(15_000);
    }

    private Stage() {}

    /** The demo school, started at the first asking. */
    static synchronized Demo.Running demo() {
        if (demo == null) {
            demo = Demo.start(0, folder("demo").toString(), Map.of("spring.main.banner-mode", "off"));
            filled = folder("filled").resolve("filled.zip");
            demo.server()
                    .getBean(JdbcClient.class)
                    .sql("backup to '" + filled + "'")
                    .update();
        }
        return demo;
    }

    /** A data folder with a demo school in it of its own, as it is before anybody does anything. */
    static Path filled(String name) throws IOException {
        demo();
        Path data = folder(name);
        try (ZipInputStream zip = new ZipInputStream(Files.newInputStream(filled))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry())
                Files.copy(zip, data.resolve(Path.of(entry.getName()).getFileName()));
        }
        return data;
    }

    static Path folder(String name) {
        try {
            return Files.createTempDirectory("porch-" + name);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A window of somebody's own, on a school at an address. */
    static Page window(String address, int width, int height, ColorScheme scheme) {
        BrowserContext context = BROWSER.newContext(new Browser.NewContextOptions()
                .setBaseURL(address)
                .setViewportSize(width, height)
                .setColorScheme(scheme)
                .setLocale("en-GB")
                .setTimezoneId("Europe/London")
                .setReducedMotion(ReducedMotion.REDUCE));
        context.setDefaultTimeout(15_000);
        return context.newPage();
    }

    static Page window(String address) {
        return window(address, 1280, 800, ColorScheme.LIGHT);
    }

    /** Signs in on the page that the window shows. */
    static void signIn(Page page, String username, String password) {
        Locator name = page.getByLabel("Username", new Page.GetByLabelOptions().setExact(true));
        name.fill(username);
        page.getByLabel("Password or pass phrase").fill(password);
        button(page, "Sign in").click();
        name.waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.DETACHED));
    }

    /** A window of somebody of the demo school, signed in, at a path. */
    static Page as(String username, String path, int width, int height, ColorScheme scheme) {
        Page page = window(demo().address(), width, height, scheme);
        page.navigate(path);
        signIn(page, username, "porch-demo");
        settled(page);
        return page;
    }

    /** Comes back when a page stands: nothing on it is still coming, and nothing came for a moment. */
    static void settled(Page page) {
        page.waitForFunction("""
            () => document.querySelector('main') && !document.querySelector('[aria-label="One moment"]')
              && performance.now() - Math.max(0, ...performance.getEntries().map((e) => e.responseEnd ?? 0)) > 100""");
    }

    /** Selects the first characters of the text that is read, as a finger or the keyboard does. */
    static void select(Page page, int characters) {
        page.evaluate("""
            (characters) => {
              const words = document.querySelector('.reading p').firstChild;
              document.getSelection().setBaseAndExtent(words, 0, words, characters);
            }""", characters);
    }

    /** The same at the size of a teacher's screen. */
    static Page as(String username, String path) {
        return as(username, path, 1280, 800, ColorScheme.LIGHT);
    }

    static Locator named(Page page, AriaRole role, String name) {
        return page.getByRole(role, new Page.GetByRoleOptions().setName(Pattern.compile(name)));
    }

    static Locator button(Page page, String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    static Locator button(Page page, Pattern name) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
    }

    static Locator link(Page page, String name) {
        return page.getByRole(
                AriaRole.LINK, new Page.GetByRoleOptions().setName(name).setExact(true));
    }
}
