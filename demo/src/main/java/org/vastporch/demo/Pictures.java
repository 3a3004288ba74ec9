package org.vastporch.demo;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Random;
import javax.imageio.ImageIO;

/** Draws small garden scenes, so that the demo has pictures of its own. */
final class Pictures {

    private static final int W = 1200;
    private static final int H = 720;

    private Pictures() {}

    /** A scene as PNG; the same seed gives the same one. */
    static byte[] garden(int seed) {
        Random random = new Random(seed);
        BufferedImage image = new BufferedImage(W, H, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        Color[] skies = {new Color(0xc9d8b4), new Color(0xd6e3e6), new Color(0xe9dcc4), new Color(0xc4d4dc)};
        g.setColor(skies[seed % skies.length]);
        g.fillRect(0, 0, W, H);
        int ground = 430 + random.nextInt(60);
        g.setColor(new Color(0x8a9c6a));
        g.fill(new Ellipse2D.Double(-200, ground - 140, 900, 320));
        g.setColor(new Color(0x7a5a3f));
        g.fillRect(0, ground, W, H - ground);
        g.setColor(new Color(0x6a4d35));
        for (int y = ground + 50; y < H; y += 62) g.fillRect(0, y, W, 7);
        if (seed % 3 == 0) leaves(g, random, ground);
        else if (seed % 3 == 1) poles(g, random, ground);
        else pots(g, random, ground);
        g.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static void leaves(Graphics2D g, Random random, int ground) {
        for (int i = 0; i < 5; i++) {
            int x = 60 + i * 230 + random.nextInt(40);
            int w = 180 + random.nextInt(70);
            g.setColor(new Color(0x4f7d3f).darker());
            g.fill(new Ellipse2D.Double(x + 12, ground - 78, w, 120));
            g.setColor(new Color(0x4f7d3f));
            g.fill(new Ellipse2D.Double(x, ground - 92, w, 124));
            g.setColor(new Color(0xc9d8b4));
            for (int hole = 0; hole < random.nextInt(4); hole++)
                g.fill(new Ellipse2D.Double(x + 30 + random.nextInt(w - 70), ground - 70 + random.nextInt(60), 22, 22));
        }
    }

    private static void poles(Graphics2D g, Random random, int ground) {
        for (int i = 0; i < 6; i++) {
            int x = 110 + i * 190;
            g.setColor(new Color(0x9a7a52));
            g.setStroke(new BasicStroke(14, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
            g.drawLine(x - 40, ground + 20, x + 20, 120);
            g.setColor(new Color(0x5d8a46));
            g.setStroke(new BasicStroke(9, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
            Path2D vine = new Path2D.Double();
            vine.moveTo(x - 40, ground);
            int top = 200 + random.nextInt(140);
            for (int y = ground; y > top; y -= 40)
                vine.quadTo(x + (y / 40 % 2 == 0 ? 46 : -60), y - 20, x - 40 + (ground - y) / 6.0, y - 40);
            g.draw(vine);
            for (int y = ground - 40; y > top; y -= 55)
                g.fill(new Ellipse2D.Double(x - 50 + random.nextInt(60), y, 44, 28));
        }
    }

    private static void pots(Graphics2D g, Random random, int ground) {
        for (int i = 0; i < 4; i++) {
            int x = 120 + i * 270;
            g.setColor(new Color(0xb5653c));
            Path2D pot = new Path2D.Double();
            pot.moveTo(x, ground - 60);
            pot.lineTo(x + 170, ground - 60);
            pot.lineTo(x + 140, ground + 110);
            pot.lineTo(x + 30, ground + 110);
            pot.closePath();
            g.fill(pot);
            g.setColor(new Color(0x9a4f2b));
            g.fillRect(x - 10, ground - 76, 190, 34);
            g.setColor(new Color(0x5d8a46));
            g.setStroke(new BasicStroke(10, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
            int tall = 90 + random.nextInt(180);
            g.drawLine(x + 85, ground - 70, x + 85, ground - 70 - tall);
            g.fill(new Ellipse2D.Double(x + 20, ground - 90 - tall, 76, 46));
            g.fill(new Ellipse2D.Double(x + 80, ground - 110 - tall, 76, 46));
        }
    }
}
