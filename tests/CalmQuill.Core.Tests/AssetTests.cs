using System.Security.Cryptography;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>What files are called, what they are by their bytes, and that pictures say nothing of where they were taken.</summary>
public sealed class AssetTests
{
    private static readonly byte[] Lossless = [0x2F, 0xC7, 0x40, 0x18, 0x00, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

    [Fact]
    public void A_file_is_called_by_the_beginning_of_its_digest()
    {
        // FIPS 180-4's own example: SHA-256 of “abc” is ba7816bf 8f01cfea 414140de 5dae2223 …
        Assert.Equal(new Guid("ba7816bf-8f01-8fea-8141-40de5dae2223"), AssetId.Of("abc"u8));
        Assert.True(AssetId.IsOfContent(AssetId.Of("abc"u8)));
        Assert.False(AssetId.IsOfContent(Guid.NewGuid()));
        Gen.Byte.Array[0, 200]
            .Sample(bytes =>
            {
                var id = AssetId.Of(bytes);
                Assert.Equal(id, AssetId.OfDigest(SHA256.HashData(bytes)));
                Assert.True(AssetId.IsOfContent(id));
                Assert.NotEqual(id, AssetId.Of([.. bytes, 0]));
            });
    }

    [Theory]
    [InlineData("tEXt")]
    [InlineData("zTXt")]
    [InlineData("iTXt")]
    [InlineData("eXIf")]
    [InlineData("tIME")]
    public void A_png_loses_what_it_says_of_its_origin_and_nothing_else(string chunk)
    {
        var plain = MadePictures.Png(31, 17);
        Assert.Equal(new FileType(FileType.Png, 31, 17), FileType.Of(plain));
        Assert.Null(FileType.Of(plain).Problem(plain));
        byte[] talking =
        [
            .. plain.AsSpan(0, 33),
            .. MadePictures.PngChunk(chunk, [.. "GPS 47.37 N"u8]),
            .. plain.AsSpan(33, plain.Length - 45),
            .. MadePictures.PngChunk(chunk, []),
            .. plain.AsSpan(plain.Length - 12),
        ];
        var type = FileType.Of(talking);
        Assert.Contains("where", type.Problem(talking)?.English, StringComparison.Ordinal);
        Assert.Equal(plain, type.Cleaned(talking));
    }

    [Fact]
    public void A_webp_loses_its_exif_and_xmp_and_its_flags_say_so()
    {
        var plain = MadePictures.Webp(200, 100, ("VP8L", Lossless));
        var talking = MadePictures.Webp(200, 100, ("VP8L", Lossless), ("EXIF", [1, 2, 3]), ("XMP ", [.. "<x/>"u8]));
        Assert.Equal(new FileType(FileType.Webp, 200, 100), FileType.Of(talking));
        Assert.Null(FileType.Of(plain).Problem(plain));
        Assert.Contains("where", FileType.Of(talking).Problem(talking)?.English, StringComparison.Ordinal);
        Assert.Equal(plain, FileType.Of(talking).Cleaned(talking));
    }

    [Fact]
    public void A_simple_webp_is_measured_by_its_pixels()
    {
        // 0x2F, then fourteen bits each of width and height less one (RFC 9649 §3.4): 200 and 100.
        byte[] lossless = [0x2F, 0xC7, 0xC0, 0x18, 0x00, .. new byte[10]];
        byte[] file = [.. "RIFF"u8, 12 + 15, 0, 0, 0, .. "WEBPVP8L"u8, 15, 0, 0, 0, .. lossless, 0];
        file[4] = (byte)(file.Length - 8);
        Assert.Equal((200, 100), WebpFile.Read(file));
        Assert.Null(WebpFile.Problem(file));
        // A key frame (RFC 6386 §9.1): start code, then width and height.
        byte[] lossy = [0, 0, 0, 0x9D, 0x01, 0x2A, 0xC8, 0x00, 0x64, 0x00, 0, 0];
        byte[] other = [.. "RIFF"u8, (byte)(12 + lossy.Length), 0, 0, 0, .. "WEBPVP8 "u8, (byte)lossy.Length, 0, 0, 0, .. lossy];
        Assert.Equal((200, 100), WebpFile.Read(other));
    }

    [Fact]
    public void A_cut_picture_is_refused_and_so_is_one_with_something_behind_it()
    {
        foreach (var file in new[] { MadePictures.Png(64, 64), MadePictures.Webp(200, 100, ("VP8L", Lossless)) })
        {
            var type = FileType.Of(file);
            for (var length = 12; length < file.Length; length++)
                Assert.Contains("not whole", type.Problem(file.AsSpan(0, length))?.English, StringComparison.Ordinal);
            Assert.Contains("something else", type.Problem([.. file, .. "<script>"u8])?.English, StringComparison.Ordinal);
        }

        var huge = MadePictures.Png(1, 1);
        (huge[16], huge[20]) = (1, 1);
        Assert.Contains("megapixels", FileType.Of(huge).Problem(huge)?.English, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(3)]
    [InlineData(4)]
    public void A_jpeg_is_kept_in_red_green_and_blue_alone(byte components)
    {
        // Frame header (T.81 §B.2.2) of 9 by 9 pixels, then a scan and the end.
        byte[] file =
        [
            0xFF,
            0xD8,
            0xFF,
            0xC0,
            0,
            (byte)(8 + 3 * components),
            8,
            0,
            9,
            0,
            9,
            components,
            .. Enumerable.Range(1, components).SelectMany(i => new byte[] { (byte)i, 0x11, 0 }),
            0xFF,
            0xDA,
            0,
            2,
            1,
            0xFF,
            0xD9,
        ];
        Assert.Equal(
            components == 3 ? null : "The picture is not in red, green and blue. Nothing was kept.",
            FileType.Of(file).Problem(file)?.English
        );
    }

    [Fact]
    public void Whatever_the_bytes_they_are_some_type_and_never_lead_beyond_their_end() =>
        Gen.Select(Gen.Int[0, 2], Gen.Int[0, 120], Gen.Byte, Gen.Int[0, 80])
            .Sample(
                (which, at, value, cut) =>
                {
                    byte[] file = which switch
                    {
                        0 => MadePictures.Png(5, 5),
                        1 => MadePictures.Webp(200, 100, ("VP8L", Lossless), ("EXIF", [1, 2, 3])),
                        _ =>
                        [
                            0xFF,
                            0xD8,
                            0xFF,
                            0xE1,
                            0,
                            8,
                            1,
                            2,
                            3,
                            4,
                            5,
                            6,
                            0xFF,
                            0xC0,
                            0,
                            11,
                            8,
                            0,
                            9,
                            0,
                            9,
                            1,
                            1,
                            0x11,
                            0,
                            0xFF,
                            0xDA,
                            0,
                            2,
                            1,
                            0xFF,
                            0xD9,
                        ],
                    };
                    file[at % file.Length] = value;
                    var part = file.AsSpan(0, Math.Max(0, file.Length - cut));
                    var type = FileType.Of(part);
                    if (type.IsPicture && type.Problem(part) is null)
                        Assert.Equal(part.Length, type.Cleaned(part).Length);
                },
                iter: 20_000
            );

    [Fact]
    public void A_frozen_page_is_known_and_what_only_looks_like_one_is_not()
    {
        var page = new PageDocument();
        var device = new Replica(1, Generate.People[0]);
        page.Apply(device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 60, 0xFF), 0, Generate.Wave(20)), 5));
        var bare = FrozenPage.Write(page, "a5-blank-710");
        // What was marked there, and said to it, does not go along.
        page.Apply(
            device.Make(
                new Change.SpotAdded(
                    Generate.Node(1),
                    SpotKind.Mark,
                    new Box(0, 0, 9, 9),
                    [],
                    [new SpotValue(SpotField.Mark, MarkKinds.Ask)]
                ),
                5
            )
        );
        page.Apply(device.Make(new Change.AnswerAdded(Generate.Node(1), "between us", [], ReadOnlyMemory<byte>.Empty), 5));
        var file = FrozenPage.Write(page, "a5-blank-710");
        Assert.Equal(bare, file);
        Assert.Equal(new FileType(FrozenPage.MediaType, 14800, 21000), FileType.Of(file));
        Assert.Single(FrozenPage.Read(file)!.Page.Items);
        Assert.Equal(FileType.Other, FileType.Of(file.AsSpan(0, file.Length - 3)).MediaType);
        // An operation that no page takes does not come in by this way either.
        byte[] odd =
        [
            .. "a5-blank-710\n"u8,
            .. OperationCodec.Encode(device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 0, 0xFF), 0, Generate.Wave(20)), 6)),
        ];
        Assert.Equal(FileType.Other, FileType.Of(odd).MediaType);
        Assert.Equal(FileType.Other, FileType.Of("<svg onload=alert(1)>"u8).MediaType);
        Assert.Equal(FileType.Pdf, FileType.Of("%PDF-1.7"u8).MediaType);
    }
}
