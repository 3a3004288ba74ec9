package org.vastporch.server;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Counts the statements that requests send to the database; those of jobs do not count. */
@Component
class StatementCount implements BeanPostProcessor {

    private static final AtomicInteger SENT = new AtomicInteger();

    interface Request {
        School.Answer send();
    }

    /** How many statements the second of two such requests needs: what is made at the first is there then. */
    static int of(Request request) {
        request.send();
        int before = SENT.get();
        School.Answer answer = request.send();
        if (answer.status() != 200) throw new IllegalStateException(answer.status() + " " + answer.text());
        return SENT.get() - before;
    }

    @Override
    public Object postProcessAfterInitialization(Object bean, String name) {
        if (!(bean instanceof JdbcClient)) return bean;
        return Proxy.newProxyInstance(
                JdbcClient.class.getClassLoader(), new Class<?>[] {JdbcClient.class}, (proxy, method, args) -> {
                    if (method.getName().equals("sql")
                            && Thread.currentThread().getName().startsWith("http")) SENT.incrementAndGet();
                    try {
                        return method.invoke(bean, args);
                    } catch (InvocationTargetException e) {
                        throw e.getCause();
                    }
                });
    }
}
