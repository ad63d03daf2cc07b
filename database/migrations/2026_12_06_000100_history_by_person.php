<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** How many objects each change changed, whether what it did is still kept, and how many changes a project keeps. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('changes', static function (Blueprint $table): void {
            // Null for changes that were made before this was counted.
            $table->integer('objects')->nullable();
            $table->boolean('thinned')->default(false);
        });
        // 0 for all.
        Schema::table('projects', static fn (Blueprint $table) => $table->integer('history_kept')->default(0));
    }

    public function down(): void
    {
        Schema::table('projects', static fn (Blueprint $table) => $table->dropColumn('history_kept'));
        Schema::table('changes', static fn (Blueprint $table) => $table->dropColumn(['objects', 'thinned']));
    }
};
