using System.Net;
using System.Text;
using CalmQuill.MailServer;

// CalmQuill.MailServer MAIL-PORT SHOW-PORT: takes mail on the one, and shows what arrived on the other.
using var box = new LetterBox(int.Parse(args[0], System.Globalization.CultureInfo.InvariantCulture));
using var show = new HttpListener();
show.Prefixes.Add($"http://127.0.0.1:{args[1]}/");
show.Start();
while (true)
{
    var context = await show.GetContextAsync();
    var letters = box
        .Arrived.Reverse()
        .Select(letter =>
            $"<article><h2>{WebUtility.HtmlEncode(letter.Subject)}</h2><p>To {WebUtility.HtmlEncode(letter.To)}</p><pre>{WebUtility.HtmlEncode(letter.Text)}</pre></article>"
        );
    var body = string.Concat(letters) is { Length: > 0 } some ? some : "<p>No letter has arrived yet.</p>";
    var page = Encoding.UTF8.GetBytes($"<!doctype html><meta charset=\"utf-8\"><title>Letters</title><h1>Letters that arrived</h1>{body}");
    context.Response.ContentType = "text/html; charset=utf-8";
    await context.Response.OutputStream.WriteAsync(page);
    context.Response.Close();
}
