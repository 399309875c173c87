using System.Text;
using AngleSharp.Html;
using AngleSharp.Html.Parser;
using AngleSharp.Html.Parser.Tokens;
using AngleSharp.Text;
using CalmQuill.Core.Links;

namespace CalmQuill.Documents.Previews;

/// <summary>What a page of the web says of itself: read from its head (WHATWG HTML, Open Graph protocol), never run.</summary>
/// <param name="Title">What it is called; empty where it does not say.</param>
/// <param name="Words">What it is about; may be empty.</param>
/// <param name="Site">Of which site it is: what that calls itself, else its host.</param>
/// <param name="Picture">The address of a picture of it; null for none.</param>
public sealed record PageHead(string Title, string Words, string Site, Uri? Picture)
{
    /// <summary>So much of a page is read, bytes: what it says of itself stands at its beginning.</summary>
    public const int MostBytes = 512 * 1024;

    private const string TitleTag = "title";

    private const int MostTitle = 200,
        MostWords = 400,
        MostSite = 80;

    /// <summary>Reads a page. It is gone through once and never becomes a tree, so that one which means no good costs no more than its length.</summary>
    /// <param name="html">Its bytes; in which code they are the page says itself.</param>
    /// <param name="at">Where it lies.</param>
    public static PageHead Read(byte[] html, Uri at)
    {
        var said = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        if (Gather(html, Encoding.UTF8, said) is { } other)
        {
            said.Clear();
            Gather(html, other, said);
        }

        return new PageHead(
            Line(Said("og:title", "twitter:title", TitleTag) ?? "", MostTitle),
            Line(Said("og:description", "description", "twitter:description") ?? "", MostWords),
            Line(Said("og:site_name") ?? at.IdnHost, MostSite),
            Said("og:image:secure_url", "og:image", "og:image:url", "twitter:image") is { } picture ? Within(at, picture) : null
        );

        string? Said(params string[] names) => names.Select(name => said.GetValueOrDefault(name)).FirstOrDefault(one => one is not null);
    }

    /// <summary>Gathers what is said before anything is shown; the code in which the page says that it is, where that is another.</summary>
    private static Encoding? Gather(byte[] html, Encoding code, Dictionary<string, string> said)
    {
        using var source = new TextSource(new MemoryStream(html, 0, Math.Min(html.Length, MostBytes)), code);
        using var tokens = new HtmlTokenizer(source, HtmlEntityProvider.Resolver);
        for (var token = tokens.Get(); token.Type != HtmlTokenType.EndOfFile; token = tokens.Get())
        {
            if (token.Type != HtmlTokenType.StartTag || token is not HtmlTagToken tag)
                continue;
            switch (tag.Name)
            {
                case "body":
                    return null;
                case "title":
                    tokens.State = HtmlParseMode.RCData;
                    var words = tokens.Get();
                    if (words.Type == HtmlTokenType.Character)
                        said.TryAdd(TitleTag, words.Data);
                    break;
                case "script":
                    tokens.State = HtmlParseMode.Script;
                    break;
                case "style" or "noscript" or "noframes" or "iframe" or "xmp":
                    tokens.State = HtmlParseMode.Rawtext;
                    break;
                case "meta":
                    if (CodeOf(tag) is { } named && named.CodePage != code.CodePage && code.CodePage == Encoding.UTF8.CodePage)
                        return named;
                    var name = Attribute(tag, "property") is { Length: > 0 } property ? property : Attribute(tag, "name");
                    var content = Attribute(tag, "content");
                    if (name.Length > 0 && !string.IsNullOrWhiteSpace(content))
                        said.TryAdd(name, content);
                    break;
            }
        }

        return null;
    }

    private static string Attribute(HtmlTagToken tag, string name) => tag.GetAttribute(name) ?? "";

    private static Encoding? CodeOf(HtmlTagToken meta)
    {
        var name = Attribute(meta, "charset");
        if (name.Length == 0 && Attribute(meta, "http-equiv").Equals("content-type", StringComparison.OrdinalIgnoreCase))
            name = Attribute(meta, "content").Split("charset=", 2) is [_, var rest] ? rest.Split(';', ' ')[0] : "";
        try
        {
            return name.Length == 0
                ? null
                : CodePagesEncodingProvider.Instance.GetEncoding(name.Trim()) ?? Encoding.GetEncoding(name.Trim());
        }
        catch (ArgumentException)
        {
            return null;
        }
    }

    private static Uri? Within(Uri page, string address) =>
        Uri.TryCreate(page, address.Trim(), out var whole)
        && whole.Scheme is "http" or "https"
        && whole.AbsoluteUri.Length <= LinkTarget.MostAddress
            ? whole
            : null;

    /// <summary>Words in one line without what cannot be seen.</summary>
    private static string Line(string text, int most)
    {
        var line = new StringBuilder();
        foreach (var rune in text.EnumerateRunes())
        {
            if (line.Length + rune.Utf16SequenceLength > most)
                break;
            if (Rune.IsWhiteSpace(rune) || Rune.IsControl(rune))
                line.Append(line.Length > 0 && line[^1] != ' ' ? " " : "");
            else if (rune.Value is not 0xFFFD)
                line.Append(rune);
        }

        return line.ToString().Trim();
    }
}
