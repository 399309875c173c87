using System.Net;
using Amazon.Runtime;
using Amazon.S3;
using Amazon.S3.Model;

namespace CalmQuill.Store.Assets;

/// <summary>The bytes of assets in a store that speaks S3, under the space's id and their own. What was kept in the database before is still given from there.</summary>
public sealed class BucketFiles(Bucket bucket, DatabaseFiles before) : IAssetFiles, IDisposable
{
    /// <summary>So many objects one request may remove.</summary>
    private const int MostRemoved = 1_000;

    private readonly AmazonS3Client client = new(
        new BasicAWSCredentials(bucket.Key, bucket.Secret),
        new AmazonS3Config
        {
            ServiceURL = bucket.Address.ToString(),
            // The bucket stands in the path: names of one's own need no entry in any name server.
            ForcePathStyle = true,
            RequestChecksumCalculation = RequestChecksumCalculation.WHEN_REQUIRED,
            ResponseChecksumValidation = ResponseChecksumValidation.WHEN_REQUIRED,
        }
    );

    public async Task Write(Guid space, Guid asset, byte[] bytes, CancellationToken cancel)
    {
        using var content = new MemoryStream(bytes);
        await client.PutObjectAsync(
            new PutObjectRequest
            {
                BucketName = bucket.Name,
                Key = KeyOf(space, asset),
                InputStream = content,
                UseChunkEncoding = false,
            },
            cancel
        );
    }

    public async Task<byte[]?> Read(Guid space, Guid asset, CancellationToken cancel)
    {
        try
        {
            using var answer = await client.GetObjectAsync(bucket.Name, KeyOf(space, asset), cancel);
            using var bytes = new MemoryStream();
            await answer.ResponseStream.CopyToAsync(bytes, cancel);
            return bytes.ToArray();
        }
        catch (AmazonS3Exception problem) when (problem.StatusCode == HttpStatusCode.NotFound)
        {
            return await before.Read(space, asset, cancel);
        }
    }

    public async Task Remove(IReadOnlyList<(Guid Space, Guid Asset)> assets, CancellationToken cancel)
    {
        foreach (var some in assets.Chunk(MostRemoved))
            await client.DeleteObjectsAsync(
                new DeleteObjectsRequest
                {
                    BucketName = bucket.Name,
                    Objects = [.. some.Select(one => new KeyVersion { Key = KeyOf(one.Space, one.Asset) })],
                },
                cancel
            );
        await before.Remove(assets, cancel);
    }

    public void Dispose() => client.Dispose();

    private static string KeyOf(Guid space, Guid asset) => $"{space}/{asset}";
}
