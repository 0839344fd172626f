vcl 4.1;

# Varnish, pages that say where their head goes (ESI). In the <head> of each page or of the template it is made from:
#
#     <esi:include src="/kephalon-head"/>
#
# To fit: the two backends, and the name of the site (Docs).

backend pages {
	.host = "127.0.0.1";
	.port = "8080";
}

backend kephalon {
	.host = "127.0.0.1";
	.port = "4880";
	.connect_timeout = 0.3s;
	.first_byte_timeout = 1s;
}

sub vcl_recv {
	set req.backend_hint = pages;
	if (req.url ~ "^/kephalon-head") {
		# It is a part of pages, and no page.
		if (req.esi_level == 0) {
			return (synth(404));
		}
		# The path of the page as the request wrote it, without its query.
		set req.url = "/api/sites/Docs/head" + regsub(req_top.url, "\?.*$", "") + "?or=empty";
		set req.backend_hint = kephalon;
		set req.http.Accept = "text/html";
		unset req.http.Cookie;
		unset req.http.Authorization;
		return (hash);
	}
	# What heads name.
	if (req.url ~ "^/media/") {
		set req.backend_hint = kephalon;
	}
	if (req.url == "/manifest.webmanifest") {
		set req.url = "/api/sites/Docs/manifest";
		set req.backend_hint = kephalon;
	}
}

sub vcl_backend_response {
	if (bereq.url ~ "^/api/sites/Docs/head") {
		# Heads are asked for again after five seconds; the last good one goes out while Kephalon is away.
		set beresp.ttl = 5s;
		set beresp.grace = 30d;
		set beresp.keep = 1d;
		unset beresp.http.Vary;
		if (beresp.status >= 500) {
			return (abandon);
		}
		return (deliver);
	}
	if (beresp.http.Content-Type ~ "^text/html") {
		set beresp.do_esi = true;
		set beresp.do_gzip = true;
	}
}

sub vcl_backend_error {
	if (bereq.url ~ "^/api/sites/Docs/head") {
		# What is known goes on; where nothing is, the page goes out without a head.
		if (bereq.is_bgfetch) {
			return (abandon);
		}
		set beresp.status = 200;
		set beresp.ttl = 1s;
		set beresp.body = "";
		return (deliver);
	}
}

sub vcl_deliver {
	# A page is another with another head: its own names say nothing of that.
	if (obj.can_esi) {
		unset resp.http.ETag;
		unset resp.http.Last-Modified;
	}
}
