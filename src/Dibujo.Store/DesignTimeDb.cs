using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Dibujo.Store;

/// <summary>Lets <c>dotnet ef migrations add</c> see the model without starting the server.</summary>
public sealed class DesignTimeDb : IDesignTimeDbContextFactory<DibujoDb>
{
    /// <inheritdoc/>
    public DibujoDb CreateDbContext(string[] args) =>
        new(new DbContextOptionsBuilder<DibujoDb>().UseSqlite("Data Source=design-time.db").Options);
}
