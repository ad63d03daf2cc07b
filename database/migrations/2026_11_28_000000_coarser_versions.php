<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Packs with coarser versions of meshes, and which meshes of a source were looked at for them. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('packs', function (Blueprint $table): void {
            $table->binary('versions')->nullable();
        });
        Schema::table('sources', function (Blueprint $table): void {
            $table->binary('coarsened')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('packs', function (Blueprint $table): void {
            $table->dropColumn('versions');
        });
        Schema::table('sources', function (Blueprint $table): void {
            $table->dropColumn('coarsened');
        });
    }
};
