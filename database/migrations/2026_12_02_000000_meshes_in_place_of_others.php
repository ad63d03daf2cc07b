<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::table('meshes', static function (Blueprint $table): void {
            // The mesh that it is a coarser version of; 0 for what came with a file.
            $table->integer('made_of')->default(0);
            // What the files of its source do not have of it: entries of hulls and shapes.
            $table->binary('hull')->nullable();
            $table->binary('shape')->nullable();
        });
        Schema::table('projects', static function (Blueprint $table): void {
            // How often objects have got other meshes: pages that are open hear of it by that.
            $table->integer('meshed')->default(0);
        });
    }

    public function down(): void
    {
        Schema::table('meshes', static fn (Blueprint $table) => $table->dropColumn(['made_of', 'hull', 'shape']));
        Schema::table('projects', static fn (Blueprint $table) => $table->dropColumn('meshed'));
    }
};
