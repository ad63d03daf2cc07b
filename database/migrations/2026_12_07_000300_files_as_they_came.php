<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * The file of a source as it came, by its content, and since when it is no longer kept; the name that a layer came with, by which the next
 * file's are matched; and where an import lands.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('sources', static function (Blueprint $table): void {
            $table->string('original', 100)->default('');
            $table->timestamp('original_removed_at')->nullable();
        });
        Schema::table('layers', static fn (Blueprint $table) => $table->text('came_as')->default(''));
        Schema::table('imports', static function (Blueprint $table): void {
            $table->integer('landing')->default(0);
            $table->string('original', 100)->default('');
        });
    }

    public function down(): void
    {
        Schema::table('sources', static fn (Blueprint $table) => $table->dropColumn(['original', 'original_removed_at']));
        Schema::table('layers', static fn (Blueprint $table) => $table->dropColumn('came_as'));
        Schema::table('imports', static fn (Blueprint $table) => $table->dropColumn(['landing', 'original']));
    }
};
