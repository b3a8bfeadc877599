# frozen_string_literal: true

# Small PDFs, written by hand: one line of text a page.
module Pdfs
  # @param texts [Array<String>] the words on each page
  # @return [String] bytes
  def self.make(texts)
    kids = texts.each_index.map { |place| "#{4 + (place * 2)} 0 R" }.join(" ")
    objects = ["<< /Type /Catalog /Pages 2 0 R >>", "<< /Type /Pages /Kids [#{kids}] /Count #{texts.length} >>",
               "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>"]
    texts.each_with_index do |text, place|
      stream = "BT /F1 36 Tf 60 400 Td (#{text.gsub(/[()\\]/, "")}) Tj ET"
      objects << "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 800 600] /Contents #{5 + (place * 2)} 0 R " \
                 "/Resources << /Font << /F1 3 0 R >> >> >>"
      objects << "<< /Length #{stream.bytesize} >>\nstream\n#{stream}\nendstream"
    end
    write(objects)
  end

  def self.write(objects)
    pdf = +"%PDF-1.4\n"
    places = objects.each_with_index.map do |object, place|
      pdf.bytesize.tap { pdf << "#{place + 1} 0 obj\n#{object}\nendobj\n" }
    end
    start = pdf.bytesize
    pdf << "xref\n0 #{objects.length + 1}\n0000000000 65535 f \n" << places.map { |at| format("%010d 00000 n \n", at) }.join
    pdf << "trailer << /Size #{objects.length + 1} /Root 1 0 R >>\nstartxref\n#{start}\n%%EOF\n"
  end
  private_class_method :write
end
