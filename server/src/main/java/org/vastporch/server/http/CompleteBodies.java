package org.vastporch.server.http;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.List;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;

/**
 * Refuses a request whose body lacks something that is not {@link Optionally} there, so that no service meets a null it
 * did not ask for.
 */
@RestControllerAdvice
class CompleteBodies extends RequestBodyAdviceAdapter {

    @Override
    public boolean supports(MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        return true;
    }

    @Override
    public Object afterBodyRead(
            Object body,
            HttpInputMessage message,
            MethodParameter parameter,
            Type type,
            Class<? extends HttpMessageConverter<?>> converter) {
        check(body);
        return body;
    }

    private static void check(Object value) {
        if (value instanceof List<?> list) list.forEach(CompleteBodies::check);
        if (!(value instanceof Record)) return;
        for (RecordComponent component : value.getClass().getRecordComponents()) {
            Object part = read(component, value);
            if (part == null && !component.isAnnotationPresent(Optionally.class))
                throw Problem.incomplete(component.getName());
            if (part != null) check(part);
        }
    }

    private static Object read(RecordComponent component, Object value) {
        try {
            component.getAccessor().setAccessible(true);
            return component.getAccessor().invoke(value);
        } catch (IllegalAccessException | InvocationTargetException e) {
            throw new IllegalStateException("A record that cannot be read: " + value.getClass(), e);
        }
    }
}
