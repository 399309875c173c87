using System.Text;
using CalmQuill.Documents.Previews;

namespace CalmQuill.Documents.Tests;

/// <summary>What a page of the web says of itself, also one that means no good.</summary>
public sealed class PageHeadTests
{
    private static readonly Uri At = new("https://example.org/clocks/verge");

    [Theory]
    [InlineData("<meta property='og:image' content='pallets.png'>", "https://example.org/clocks/pallets.png")]
    [InlineData("<meta property='og:image' content='//pictures.example.org/a.png'>", "https://pictures.example.org/a.png")]
    [InlineData("<meta name='twitter:image' content='/a.png'>", "https://example.org/a.png")]
    [InlineData("<meta property='og:image' content='javascript:alert(1)'>", null)]
    [InlineData("<meta property='og:image' content='data:image/png;base64,AAAA'>", null)]
    [InlineData("<meta property='og:image' content='file:///etc/passwd'>", null)]
    [InlineData("<meta property='og:image' content='  '>", null)]
    [InlineData("<body><meta property='og:image' content='a.png'>", null)]
    public void Pictures_are_addresses_of_the_web(string html, string? picture) => Assert.Equal(picture, Read(html).Picture?.AbsoluteUri);

    [Fact]
    public void Words_are_cut_between_letters_and_hold_nothing_unseen()
    {
        var head = Read($"<title>{string.Concat(Enumerable.Repeat("🕰", 300))}</title><meta name=description content='a&#0;b&#7;\n\n c'>");
        Assert.Equal(200, head.Title.Length);
        Assert.False(char.IsHighSurrogate(head.Title[^1]));
        Assert.Equal("ab c", head.Words.Replace("\a", "", StringComparison.Ordinal));
        Assert.DoesNotContain(head.Words, char.IsControl);
    }

    [Fact]
    public void The_code_of_its_letters_is_the_one_that_it_names()
    {
        var latin = Encoding.Latin1.GetBytes("<meta charset='iso-8859-1'><title>Spiralfeder für Anfänger</title>");
        Assert.Equal("Spiralfeder für Anfänger", PageHead.Read(latin, At).Title);
    }

    /// <summary>As much as is read of one, of what makes trees deep.</summary>
    [Theory]
    [InlineData("<b>")]
    [InlineData("<a><b><i>")]
    [InlineData("<table><tr><td>")]
    [InlineData("<template>")]
    [InlineData("<svg><g>")]
    [InlineData("<meta a=")]
    [InlineData("<meta a1 a2 a3 a4 a5 ")]
    [InlineData("<title>&amp")]
    [InlineData("<script>")]
    [InlineData("<!--")]
    public void A_page_that_is_nothing_but_depth_is_read(string again)
    {
        var html = string.Concat(Enumerable.Repeat(again, PageHead.MostBytes / again.Length - 20));
        Assert.Equal("example.org", Read(html).Site);
    }

    private static PageHead Read(string html) => PageHead.Read(Encoding.UTF8.GetBytes(html), At);
}
