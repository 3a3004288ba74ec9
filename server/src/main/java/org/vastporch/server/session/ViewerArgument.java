package org.vastporch.server.session;

import io.swagger.v3.oas.annotations.Hidden;
import java.util.List;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springdoc.core.utils.SpringDocUtils;
import org.vastporch.core.access.Viewer;

/** Hands the viewer to every endpoint that names one. */
@Configuration
@Hidden
class ViewerArgument implements WebMvcConfigurer, HandlerMethodArgumentResolver {

    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(Viewer.class);
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(this);
    }

    @Override
    public boolean supportsParameter(MethodParameter parameter) {
        return parameter.getParameterType() == Viewer.class;
    }

    @Override
    public Object resolveArgument(MethodParameter parameter, ModelAndViewContainer container, NativeWebRequest request, WebDataBinderFactory binders) {
        Object viewer = request.getAttribute(Viewer.class.getName(), RequestAttributes.SCOPE_REQUEST);
        return viewer == null ? Viewer.STRANGER : viewer;
    }
}
