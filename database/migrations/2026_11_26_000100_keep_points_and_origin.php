<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Points that extents go by, and what a project's places are counted from. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('sources', fn (Blueprint $table) => $table->string('hulls')->default(''));
        Schema::table('projects', fn (Blueprint $table) => $table->jsonb('origin')->nullable());
    }

    public function down(): void
    {
        Schema::table('projects', fn (Blueprint $table) => $table->dropColumn('origin'));
        Schema::table('sources', fn (Blueprint $table) => $table->dropColumn('hulls'));
    }
};
