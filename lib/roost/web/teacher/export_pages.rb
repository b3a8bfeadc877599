# frozen_string_literal: true

module Roost
  module Web
    # What pages share on which a file is made in the background and fetched.
    module ExportPages
      # How far it is, or the way to the file.
      # @param kind [String] of Operations::MakeExport
      # @param path [String] where it is asked for and asked about; the file lies under path + ".file"
      # @param made [String] what is made, as in "The workbook"
      # @return [String] HTML
      def export_part(kind, subject_id, path:, made:)
        export = Store::Exports.new.of(account_id, kind, subject_id)
        partial("exports/progress", export: export, path: path, made: made, id: "export-#{kind}")
      end

      # Sends the file, or back to where it is made.
      def send_export(kind, subject_id, path:, name:)
        exports = Store::Exports.new
        export = exports.of(account_id, kind, subject_id)
        redirect path, 303 unless export&.ready? && File.exist?(exports.path(export.id))
        send_file exports.path(export.id), type: Operations::MakeExport.maker(kind).class::TYPE, filename: name
      end
    end
  end
end
